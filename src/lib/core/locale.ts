/** How a studio writes dates, times and notes: one setting, for screens, paper, files and form fields alike. */
import { z } from 'zod';

export const NOTE_NAMINGS = ['letters', 'german', 'solfege'] as const;
export type NoteNaming = (typeof NOTE_NAMINGS)[number];

/** A language that dates can be written in, as BCP 47 has it: "en-GB", "de". */
export function isLanguage(tag: string): boolean {
  try {
    return tag !== '' && Intl.DateTimeFormat.supportedLocalesOf(tag).length === 1;
  } catch {
    return false;
  }
}

export const localeSchema = z.object({
  language: z.string().max(35).refine(isLanguage, 'Choose one of the languages offered.'),
  /** 1 Monday … 7 Sunday. */
  firstDay: z.coerce.number().int().min(1).max(7),
  hours: z.coerce.number().refine((n): n is 12 | 24 => n === 12 || n === 24, 'Choose 12 or 24 hours.'),
  noteNames: z.enum(NOTE_NAMINGS),
  paper: z.enum(['a4', 'letter']),
});
export type Locale = Readonly<z.infer<typeof localeSchema>>;

/** Where nothing was chosen. */
export const USUAL_LOCALE: Locale = {
  language: 'en-GB',
  firstDay: 1,
  hours: 24,
  noteNames: 'letters',
  paper: 'a4',
};

/** Languages that are offered; any other that the browser proposes is taken as well. */
export const LANGUAGES = [
  'en-US',
  'en-GB',
  'en-AU',
  'en-CA',
  'en-IE',
  'en-NZ',
  'en-IN',
  'en-ZA',
  'de-DE',
  'de-AT',
  'de-CH',
  'fr-FR',
  'fr-CA',
  'fr-CH',
  'es-ES',
  'es-MX',
  'es-AR',
  'it-IT',
  'pt-PT',
  'pt-BR',
  'nl-NL',
  'nl-BE',
  'da-DK',
  'sv-SE',
  'nb-NO',
  'fi-FI',
  'is-IS',
  'et-EE',
  'lv-LV',
  'lt-LT',
  'pl-PL',
  'cs-CZ',
  'sk-SK',
  'hu-HU',
  'sl-SI',
  'hr-HR',
  'ro-RO',
  'bg-BG',
  'el-GR',
  'tr-TR',
  'uk-UA',
  'he-IL',
  'ja-JP',
  'ko-KR',
  'zh-CN',
  'zh-TW',
] as const;

/** Regions in which paper is Letter, weeks begin on Sunday, and clocks have twelve hours (CLDR, the large ones). */
const LETTER = new Set(['US', 'CA', 'MX', 'CO', 'VE', 'CL', 'PH', 'GT', 'CR', 'PA', 'DO', 'PR']);
const SUNDAY = new Set([
  'US',
  'CA',
  'MX',
  'BR',
  'JP',
  'KR',
  'TW',
  'IL',
  'IN',
  'ZA',
  'AU',
  'PH',
  'CO',
  'VE',
  'GT',
  'PE',
  'PT',
  'HK',
  'SG',
]);
/** Languages that call B natural H, and those that sing do re mi. */
const GERMAN = new Set([
  'de',
  'da',
  'sv',
  'nb',
  'no',
  'nn',
  'fi',
  'is',
  'et',
  'lv',
  'pl',
  'cs',
  'sk',
  'hu',
  'sl',
  'hr',
]);
const SOLFEGE = new Set(['fr', 'es', 'it', 'pt', 'ro', 'el', 'tr', 'he', 'uk', 'bg', 'ca']);

/** What goes for most in a language and region: "de-AT" has Mondays, 24 hours, H and B, A4. */
export function proposedLocale(tag: string): Locale {
  if (!isLanguage(tag)) return USUAL_LOCALE;
  const { language, region = '' } = new Intl.Locale(tag).maximize();
  const { hourCycle } = new Intl.DateTimeFormat(tag, { hour: 'numeric' }).resolvedOptions();
  return {
    language: tag,
    firstDay: SUNDAY.has(region) ? 7 : 1,
    hours: hourCycle === 'h11' || hourCycle === 'h12' ? 12 : 24,
    noteNames: GERMAN.has(language) ? 'german' : SOLFEGE.has(language) ? 'solfege' : 'letters',
    paper: LETTER.has(region) ? 'letter' : 'a4',
  };
}
