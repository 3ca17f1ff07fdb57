/** What a teacher wants to see, in which size and in which light: kept in a cookie of the device, so that the first picture is right. */
import type { SheetWish } from '$lib/engrave/sheet';
import { z } from 'zod';

export const SHOWN_COOKIE = 'shown';
export const ZOOMS = [80, 90, 100, 115, 130, 150] as const;
export const THEMES = ['light', 'dark', 'as the device'] as const;

export const shownSchema = z.object({
  fingers: z.boolean().catch(true),
  counts: z.boolean().catch(true),
  chords: z.boolean().catch(true),
  degrees: z.boolean().catch(false),
  pedal: z.boolean().catch(true),
  words: z.union([z.enum(['all', 'none']), z.number().int().min(1).max(9)]).catch('all'),
  names: z.boolean().catch(false),
  /** Percent. */
  zoom: z.literal(ZOOMS).catch(100),
  theme: z.enum(THEMES).catch('light'),
});
export type Shown = z.infer<typeof shownSchema>;

export const USUAL: Shown = shownSchema.parse({});

/** From the text of the cookie; what it does not say, or says wrongly, is as usual. */
export function shownFrom(cookie: string | undefined): Shown {
  try {
    return shownSchema.parse(JSON.parse(cookie ?? '{}'));
  } catch {
    return USUAL;
  }
}

/** Width of the music at a hundred percent, in CSS pixels. */
const WIDTH = 980;

/** What is drawn: larger notes have less room in a line. */
export const sheetWish = ({ zoom, theme: _theme, ...what }: Shown): SheetWish => ({
  ...what,
  width: Math.round((WIDTH * 100) / zoom),
});
