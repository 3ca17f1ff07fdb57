/** What a teacher wants to see, in which size and in which light: kept in a cookie of the device, so that the first picture is right. */
import type { LargeWish } from '$lib/engrave/large';
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
  theme: z.enum(THEMES).catch('as the device'),
  /** Room for the music in CSS pixels, where the screen is narrow; 0 where it is not. */
  room: z.number().int().min(0).max(1200).catch(0),
});
export type Shown = z.infer<typeof shownSchema>;

export const USUAL: Shown = shownSchema.parse({});

/** Room of a telephone that has not said yet how wide it is. */
export const HANDHELD = 380;

/** From the text of the cookie; what it does not say, or says wrongly, is as usual. A browser that calls itself mobile is narrow. */
export function shownFrom(cookie: string | undefined, userAgent = ''): Shown {
  let shown = USUAL;
  let saysRoom = false;
  try {
    const said: unknown = JSON.parse(cookie ?? '{}');
    shown = shownSchema.parse(said);
    saysRoom = typeof said === 'object' && said !== null && 'room' in said;
  } catch {
    // Not one of ours: as usual.
  }
  return saysRoom || !/Mobi/.test(userAgent) ? shown : { ...shown, room: HANDHELD };
}

const YEAR = 60 * 60 * 24 * 365;

/** Says which room this window leaves the music, where the cookie does not say so yet: the next pictures are drawn for it. */
export function keepRoom(windowWidth: number): void {
  const kept = document.cookie
    .split('; ')
    .find((part) => part.startsWith(`${SHOWN_COOKIE}=`))
    ?.slice(SHOWN_COOKIE.length + 1);
  const shown = shownFrom(kept && decodeURIComponent(kept));
  const room = roomIn(windowWidth);
  // A wide window is what goes without saying.
  if (room !== shown.room || (kept === undefined && room > 0)) keepShown({ ...shown, room });
}

/** Keeps it on this device. */
export const keepShown = (shown: Shown): void =>
  void (document.cookie = `${SHOWN_COOKIE}=${encodeURIComponent(JSON.stringify(shown))}; path=/; max-age=${YEAR}; samesite=lax`);

/** Width of the music at a hundred percent, in CSS pixels. */
const WIDTH = 980;
/** Below this width of the window the music has it to itself; and below this room a line holds two measures. */
const NARROW = 900;
const SMALL = 560;
const FEW = 2;
/** On a narrow screen notes are as large as on paper: of their size at scale 1. */
const AS_ON_PAPER = 0.88;
/** Beside the music on a narrow screen, in CSS pixels. */
const MARGINS = 16;
/** Rooms are told apart in steps of so many pixels: a scroll bar more or less draws nothing anew. */
const STEP = 20;

/** Whether music has so little room that a line holds two measures. */
export const isSmall = ({ room }: Pick<Shown, 'room'>): boolean => room > 0 && room < SMALL;

/** The room that a window leaves the music: 0 where it is wide enough for the panel beside it. */
export const roomIn = (windowWidth: number): number =>
  windowWidth >= NARROW ? 0 : Math.max(STEP, STEP * Math.round((windowWidth - MARGINS) / STEP));

/** On a small screen the music of a lesson has letters of 14 pixels and more: notes larger than at the desk. */
const LESSON_ON_SMALL = 1.18;

/** What a picture of some width becomes in the room of a narrow screen. */
export const inRoom = <Wish extends { readonly width: number }>(
  wish: Wish,
  { room }: Pick<Shown, 'room'>,
): Wish =>
  room === 0
    ? wish
    : {
        ...wish,
        width: Math.min(wish.width, Math.round(room / AS_ON_PAPER)),
        ...(isSmall({ room }) ? { perLine: FEW } : {}),
      };

/** What the pictures of a lesson show: with a width of their own only on a small screen. */
export function lessonWish({ theme: _theme, zoom: _zoom, room, ...what }: Shown): LargeWish {
  return isSmall({ room })
    ? { ...what, width: Math.max(240, Math.round(room / LESSON_ON_SMALL)), perLine: FEW }
    : what;
}

/** In a practice room, on a small screen, smaller than in a lesson: a measure more to a line is worth more there than size. */
const NARROWER = 1.45;

/** What the pictures of a practice room show. */
export function roomWish(shown: Shown): LargeWish {
  const { width, ...wish } = lessonWish(shown);
  return width === undefined ? wish : { ...wish, width: Math.round(width * NARROWER) };
}

/** What is drawn: larger notes have less room in a line. */
export function sheetWish({ zoom, theme: _theme, room, ...what }: Shown): SheetWish {
  const width = room > 0 ? Math.min(WIDTH, room / AS_ON_PAPER) : WIDTH;
  return {
    ...what,
    width: Math.max(240, Math.round((width * 100) / zoom)),
    ...(isSmall({ room }) ? { perLine: FEW } : {}),
  };
}
