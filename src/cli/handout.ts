/** Paper without a server: `handout FILE --level N -o OUT.pdf`. */
import { datesIn } from '../lib/core/dates';
import { proposedLocale } from '../lib/core/locale';
import { choicesSchema, SHEET_IDS, type Choices } from '../lib/paper/choices';
import { UsageError, voiceFrom, wantedFrom, type Values } from './options';
import type { Input } from './outcome';

/** What the command line calls a choice, and where it goes. */
const CHOSEN = {
  paper: 'paper',
  size: 'size',
  'note-names': 'names',
  'finger-numbers': 'fingers',
} as const satisfies Readonly<Record<string, keyof Choices>>;

/** "very-large" is “very large”. */
const spoken = (text: string): string => text.replace(/-/g, ' ');

/** The choices that the options describe. Throws UsageError with what would be one. */
function choicesFrom(values: Values): Choices {
  const sheets = (values.sheets ?? 'score').split(',').map((s) => s.trim());
  const unknown = sheets.find((s) => !SHEET_IDS.some((id) => id === s));
  if (unknown !== undefined)
    throw new UsageError(`--sheets takes ${SHEET_IDS.join(', ')}, one or several, not “${unknown}”.`);
  const keys = values['chord-keys'];
  const parsed = choicesSchema.safeParse({
    sheets: sheets.map((sheet) => ({ sheet })),
    ...Object.fromEntries(
      Object.entries(CHOSEN).flatMap(([option, name]) => {
        const text = values[option as keyof typeof CHOSEN];
        return text === undefined ? [] : [[name, spoken(text)]];
      }),
    ),
    ...(keys === undefined ? {} : { keys: keys === 'all' ? 'all' : keys.split(',').map((k) => k.trim()) }),
  });
  if (parsed.success) return parsed.data;
  const { path, message } = parsed.error.issues[0]!;
  const option = Object.entries(CHOSEN).find(([, name]) => name === path[0])?.[0] ?? 'chord-keys';
  throw new UsageError(`--${option}: ${message.replace(/very large/g, 'very-large')}`);
}

/** The bytes of the PDF. */
export async function handout({ score, values, recipeFile, levels }: Input): Promise<Uint8Array> {
  if (values.level === undefined && recipeFile === undefined)
    throw new UsageError('handout needs --level 1 to 6.');
  if (!values.output?.toLowerCase().endsWith('.pdf')) throw new UsageError('handout needs -o FILE.pdf.');
  const choices = choicesFrom(values);
  const { recipe, decisions } = wantedFrom(values, recipeFile, levels, score);
  const voice = values.voice ? voiceFrom(values.voice) : null;
  // The engraver and the faces are loaded only where paper is wanted.
  const { handoutDocument, sourceOf, writePdf } = await import('../lib/paper');
  const source = sourceOf({
    recipe,
    decisions,
    levels,
    score,
    choices,
    learner: values.student ?? values.learner ?? null,
    voice,
  });
  const date = datesIn(proposedLocale(Intl.DateTimeFormat().resolvedOptions().locale)).full(
    new Date().toISOString(),
  );
  return writePdf(
    await handoutDocument([source], choices, {
      studio: '',
      ownLine: '',
      date,
      areRightsKnown: false,
    }),
  );
}
