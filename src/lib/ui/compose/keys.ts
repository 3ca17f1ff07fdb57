/** The keys with which a tune is written, as data: what each does to the desk, and how the list of keys names it. */
import {
  alter,
  go,
  goMeasure,
  moveNote,
  remove,
  setLength,
  toggleTie,
  writeLetter,
  writeRest,
  type Desk,
} from '$core/compose/compose';
import { STEPS } from '$core/theory/pitch';

interface ComposeKey {
  readonly press: string;
  readonly does: string;
  readonly act: (desk: Desk) => Desk;
}

const VALUES = [
  ['1', 1, 'whole notes'],
  ['2', 2, 'half notes'],
  ['4', 4, 'quarters'],
  ['8', 8, 'eighths'],
  ['6', 16, 'sixteenths'],
] as const;

export const COMPOSE_KEYS: readonly ComposeKey[] = [
  ...STEPS.map((step): ComposeKey => ({
    press: step.toLowerCase(),
    does: `note ${step}, nearest to the one before`,
    act: (desk) => writeLetter(desk, step),
  })),
  ...VALUES.map(([press, value, name]): ComposeKey => ({
    press,
    does: `${name} from here on`,
    act: (desk) => setLength(desk, { value, dots: 0 }),
  })),
  { press: '.', does: 'dotted', act: (desk) => setLength(desk, { dots: desk.dots === 1 ? 0 : 1 }) },
  { press: 't', does: 'triplets', act: (desk) => setLength(desk, { triplet: !desk.triplet }) },
  { press: 'r', does: 'rest', act: writeRest },
  { press: '#', does: 'raise the last note a half step', act: (desk) => alter(desk, 1) },
  { press: '-', does: 'lower the last note a half step', act: (desk) => alter(desk, -1) },
  { press: 'ArrowUp', does: 'raise the last note a step', act: (desk) => moveNote(desk, 1) },
  { press: 'ArrowDown', does: 'lower the last note a step', act: (desk) => moveNote(desk, -1) },
  { press: 'Shift+ArrowUp', does: 'raise the last note an octave', act: (desk) => moveNote(desk, 7) },
  { press: 'Shift+ArrowDown', does: 'lower the last note an octave', act: (desk) => moveNote(desk, -7) },
  { press: '~', does: 'tie to the next note', act: toggleTie },
  { press: 'l', does: 'tie to the next note', act: toggleTie },
  { press: 'Backspace', does: 'delete the last note or the selection', act: remove },
  { press: 'ArrowLeft', does: 'previous note', act: (desk) => go(desk, -1) },
  { press: 'ArrowRight', does: 'next note', act: (desk) => go(desk, 1) },
  { press: 'Shift+ArrowLeft', does: 'extend the selection back a note', act: (desk) => go(desk, -1, true) },
  {
    press: 'Shift+ArrowRight',
    does: 'extend the selection to the next note',
    act: (desk) => go(desk, 1, true),
  },
  { press: 'Ctrl+ArrowLeft', does: 'previous measure', act: (desk) => goMeasure(desk, -1) },
  { press: 'Ctrl+ArrowRight', does: 'next measure', act: (desk) => goMeasure(desk, 1) },
  {
    press: 'Ctrl+Shift+ArrowLeft',
    does: 'extend the selection back a measure',
    act: (desk) => goMeasure(desk, -1, true),
  },
  {
    press: 'Ctrl+Shift+ArrowRight',
    does: 'extend the selection by a measure',
    act: (desk) => goMeasure(desk, 1, true),
  },
  { press: 'Home', does: 'to the beginning', act: (desk) => go(desk, -desk.sketch.items.length) },
  { press: 'End', does: 'to the end', act: (desk) => go(desk, desk.sketch.items.length) },
];

/** What the page does itself. */
export const PAGE_KEYS = [
  { press: 's', does: 'chords of this measure; Enter goes to the next' },
  { press: 'w', does: 'lyrics from here' },
  { press: 'n', does: 'start a section at this measure' },
  { press: ':', does: 'end repeat at this measure' },
  { press: 'Ctrl+c', does: 'copy the selection or the measure' },
  { press: 'Ctrl+v', does: 'paste here' },
  { press: 'Ctrl+z', does: 'undo' },
  { press: 'Ctrl+Shift+z', does: 'redo' },
  { press: ' ', does: 'play from here' },
] as const;

const byPress = new Map(COMPOSE_KEYS.map((key) => [key.press, key]));
export const composeKey = (press: string): ComposeKey | undefined => byPress.get(press);
