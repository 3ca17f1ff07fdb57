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
import { STEPS } from '$core/score/pitch';

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
    does: `the note ${step}, nearest to the one before`,
    act: (desk) => writeLetter(desk, step),
  })),
  ...VALUES.map(([press, value, name]): ComposeKey => ({
    press,
    does: `${name} from here on`,
    act: (desk) => setLength(desk, { value, dots: 0 }),
  })),
  { press: '.', does: 'dotted, or not', act: (desk) => setLength(desk, { dots: desk.dots === 1 ? 0 : 1 }) },
  { press: 't', does: 'in triplets, or not', act: (desk) => setLength(desk, { triplet: !desk.triplet }) },
  { press: 'r', does: 'a rest', act: writeRest },
  { press: '#', does: 'the note before a half step higher', act: (desk) => alter(desk, 1) },
  { press: '-', does: 'the note before a half step lower', act: (desk) => alter(desk, -1) },
  { press: 'ArrowUp', does: 'the note before a step higher', act: (desk) => moveNote(desk, 1) },
  { press: 'ArrowDown', does: 'the note before a step lower', act: (desk) => moveNote(desk, -1) },
  { press: 'Shift+ArrowUp', does: 'the note before an octave higher', act: (desk) => moveNote(desk, 7) },
  { press: 'Shift+ArrowDown', does: 'the note before an octave lower', act: (desk) => moveNote(desk, -7) },
  { press: '~', does: 'tied to the next note, or not', act: toggleTie },
  { press: 'l', does: 'tied to the next note, or not', act: toggleTie },
  { press: 'Backspace', does: 'take the note before away, or what is chosen', act: remove },
  { press: 'ArrowLeft', does: 'back a note', act: (desk) => go(desk, -1) },
  { press: 'ArrowRight', does: 'on a note', act: (desk) => go(desk, 1) },
  { press: 'Shift+ArrowLeft', does: 'choose back a note', act: (desk) => go(desk, -1, true) },
  { press: 'Shift+ArrowRight', does: 'choose on a note', act: (desk) => go(desk, 1, true) },
  { press: 'Ctrl+ArrowLeft', does: 'back a measure', act: (desk) => goMeasure(desk, -1) },
  { press: 'Ctrl+ArrowRight', does: 'on a measure', act: (desk) => goMeasure(desk, 1) },
  { press: 'Ctrl+Shift+ArrowLeft', does: 'choose back a measure', act: (desk) => goMeasure(desk, -1, true) },
  { press: 'Ctrl+Shift+ArrowRight', does: 'choose on a measure', act: (desk) => goMeasure(desk, 1, true) },
  { press: 'Home', does: 'to the beginning', act: (desk) => go(desk, -desk.sketch.items.length) },
  { press: 'End', does: 'to the end', act: (desk) => go(desk, desk.sketch.items.length) },
];

/** What the page does itself. */
export const PAGE_KEYS = [
  { press: 's', does: 'the chords of this measure; Enter goes to the next' },
  { press: 'w', does: 'words from here on' },
  { press: 'n', does: 'a section begins with this measure' },
  { press: ':', does: 'repeat to the end of this measure, or not' },
  { press: 'Ctrl+c', does: 'copy what is chosen, or the measure' },
  { press: 'Ctrl+v', does: 'put the copy here' },
  { press: 'Ctrl+z', does: 'undo' },
  { press: 'Ctrl+Shift+z', does: 'redo' },
  { press: ' ', does: 'hear it from here' },
] as const;

const byPress = new Map(COMPOSE_KEYS.map((key) => [key.press, key]));
export const composeKey = (press: string): ComposeKey | undefined => byPress.get(press);
