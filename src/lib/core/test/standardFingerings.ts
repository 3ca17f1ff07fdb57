/**
 * Fingerings on which method books agree, as digits: scales over two octaves up (the way down is the same fingers
 * backwards), arpeggios over two octaves, five-finger patterns, chords in every inversion. MIDI numbers.
 */
import { measureLength } from '../score/metre';
import type { Measure, TimeSignature } from '../score/score';
import { noteValue } from '../score/ticks';
import type { Hand } from '../fingering/events';
import { fingerWithFigures } from '../fingering/figures';
import { fingerLine, type FingeringSettings } from '../fingering/solve';
import { evenMeasures } from './evenMeasures';
import { keysLine } from './keysLine';

export interface StandardFingering {
  readonly name: string;
  readonly hand: Hand;
  /** A number for one key, a list for keys struck together, lowest first. */
  readonly keys: readonly (number | readonly number[])[];
  /** Fingers in the order of the keys, chords from the lowest up. Where books differ in a place, each is given. */
  readonly fingers: readonly string[];
  /** Where figures follow each other by its beats; keys are eighths. */
  readonly time?: TimeSignature;
}

const TONICS: readonly (readonly [name: string, midi: number])[] = [
  ['C', 60],
  ['C♯', 61],
  ['D', 62],
  ['E♭', 63],
  ['E', 64],
  ['F', 65],
  ['F♯', 66],
  ['G', 55],
  ['A♭', 56],
  ['A', 57],
  ['B♭', 58],
  ['B', 59],
];

const MAJOR = [0, 2, 4, 5, 7, 9, 11];
const HARMONIC_MINOR = [0, 2, 3, 5, 7, 8, 11];

/** Two octaves up; alternatives after a slash differ in the first or last notes only. */
const SCALES: Readonly<Record<'major' | 'minor', readonly (readonly [right: string, left: string])[]>> = {
  major: [
    ['123123412312345', '543213214321321'],
    ['231234123123412', '321432132143213/321432132143212'],
    ['123123412312345', '543213214321321'],
    ['312341231234123/212341231234123', '321432132143213/321432132143212'],
    ['123123412312345', '543213214321321'],
    ['123412312341234', '543213214321321'],
    ['234123123412312', '432132143213214/432132143213212'],
    ['123123412312345', '543213214321321'],
    ['341231234123123/231231234123123', '321432132143213/321432132143212'],
    ['123123412312345', '543213214321321'],
    ['412312341231234/212312341231234', '321432132143213/321432132143212'],
    ['123123412312345', '432143213214321'],
  ],
  minor: [
    ['123123412312345', '543213214321321'],
    ['341231234123123/231231234123123', '321432132143213/321432132143212'],
    ['123123412312345', '543213214321321'],
    ['312341231234123/212341231234123', '214321321432132'],
    ['123123412312345', '543213214321321'],
    ['123412312341234', '543213214321321'],
    ['341231234123123/231231234123123', '432132143213214/432132143213212'],
    ['123123412312345', '543213214321321'],
    ['341231234123123/231231234123123', '321432132143213/321432132143212'],
    ['123123412312345', '543213214321321'],
    ['212312341231234/412312341231234', '213214321321432'],
    ['123123412312345', '432143213214321'],
  ],
};

/** Two octaves up. */
const ARPEGGIOS: typeof SCALES = {
  major: [
    ['1231235', '5421421'],
    ['2124124', '2142142'],
    ['1231235', '5321321'],
    ['2124124', '2142142'],
    ['1231235', '5321321'],
    ['1231235', '5421421'],
    ['1231235', '5321321'],
    ['1231235', '5421421'],
    ['2124124', '2142142'],
    ['1231235', '5321321'],
    ['2124124', '3213213'],
    ['1231235', '5321321'],
  ],
  minor: [
    ['1231235', '5421421'],
    ['2124124', '2142142'],
    ['1231235', '5421421'],
    ['1231235', '5421421'],
    ['1231235', '5421421'],
    ['1231235', '5421421'],
    ['2124124', '2142142'],
    ['1231235', '5421421'],
    ['2124124', '2142142'],
    ['1231235', '5421421'],
    ['2312312', '3213213'],
    ['1231235', '5421421'],
  ],
};

const backwards = (digits: string): string => [...digits].reverse().join('');
const upAndDown = <T>(list: readonly T[]): T[] => [...list, ...[...list].reverse().slice(1)];
const over = (steps: readonly number[], octaves: number): number[] => [
  ...Array.from({ length: octaves }, (_, o) => steps.map((s) => s + 12 * o)).flat(),
  12 * octaves,
];

const lower = (hand: Hand): number => (hand === 'right' ? 0 : -12);

function ladder(
  kind: string,
  table: typeof SCALES,
  steps: Readonly<Record<'major' | 'minor', readonly number[]>>,
): StandardFingering[] {
  return (['major', 'minor'] as const).flatMap((mode) =>
    TONICS.flatMap(([name, tonic], i) =>
      (['right', 'left'] as const).map((hand, h): StandardFingering => ({
        name: `${name} ${mode}, ${kind}`,
        hand,
        keys: upAndDown(over(steps[mode], 2).map((s) => tonic + lower(hand) * (h === 1 ? 1 : 0) + s)),
        fingers: table[mode][i]![h]!.split('/').flatMap((up) =>
          table[mode][i]![h]!.split('/').map((down) => up + backwards(down).slice(1)),
        ),
      })),
    ),
  );
}

const fiveFingers = (): StandardFingering[] =>
  TONICS.flatMap(([name, tonic]) =>
    [
      [0, 2, 4, 5, 7],
      [0, 2, 3, 5, 7],
    ].flatMap((steps, minor) =>
      (['right', 'left'] as const).map((hand): StandardFingering => ({
        name: `${name} ${minor ? 'minor' : 'major'}, five fingers`,
        hand,
        keys: upAndDown(steps.map((s) => tonic + lower(hand) + s)),
        fingers: [upAndDown([...(hand === 'right' ? '12345' : '54321')]).join('')],
      })),
    ),
  );

/** Fingers of chords, by inversion, for either hand. */
const TRIADS = { right: ['135', '125', '135'], left: ['531', '531', '521'] } as const;
const SEVENTHS = { right: ['1235', '1245', '1235', '1235'], left: ['5321', '5321', '5321', '5421'] } as const;

const inverted = (keys: readonly number[], inversion: number): number[] => [
  ...keys.slice(inversion),
  ...keys.slice(0, inversion).map((k) => k + 12),
];

const chords = (): StandardFingering[] =>
  TONICS.flatMap(([name, tonic]) =>
    (['right', 'left'] as const).flatMap((hand) => [
      ...[
        [0, 4, 7],
        [0, 3, 7],
      ].flatMap((steps, minor) =>
        TRIADS[hand].map((fingers, inversion): StandardFingering => ({
          name: `${name} ${minor ? 'minor' : 'major'} triad, inversion ${inversion}`,
          hand,
          keys: [
            inverted(
              steps.map((s) => tonic + lower(hand) + s),
              inversion,
            ),
          ],
          fingers: [fingers],
        })),
      ),
      ...SEVENTHS[hand].map((fingers, inversion): StandardFingering => ({
        name: `${name}7, inversion ${inversion}`,
        hand,
        keys: [
          inverted(
            [0, 4, 7, 10].map((s) => tonic + lower(hand) + s),
            inversion,
          ),
        ],
        fingers: [fingers],
      })),
      {
        name: `${name}, octave`,
        hand,
        keys: [[tonic + lower(hand), tonic + lower(hand) + 12]],
        fingers: [hand === 'right' ? '15' : '51'],
      },
    ]),
  );

const CHROMATIC = { right: '1313123131312', left: '1313213131321' } as const;

export const STANDARD_SCALES = ladder('scale', SCALES, { major: MAJOR, minor: HARMONIC_MINOR });
export const STANDARD_ARPEGGIOS = ladder('arpeggio', ARPEGGIOS, { major: [0, 4, 7], minor: [0, 3, 7] });
export const STANDARD_FIVE_FINGERS = fiveFingers();
export const STANDARD_CHORDS = chords();
export const STANDARD_CHROMATIC = (['right', 'left'] as const).map((hand): StandardFingering => ({
  name: 'chromatic scale from C',
  hand,
  keys: upAndDown(Array.from({ length: 13 }, (_, i) => 60 + lower(hand) + i)),
  fingers: [
    upAndDown([...CHROMATIC[hand]]).join(''),
    upAndDown([...(hand === 'right' ? '1313123131313' : '2313213131321')]).join(''),
  ],
}));

/** Broken chords and sequences whose fingers no book gives otherwise. */
export const STANDARD_FIGURES: readonly StandardFingering[] = [
  { name: 'Alberti on C', hand: 'left', keys: [48, 55, 52, 55, 48, 55, 52, 55], fingers: ['51315131'] },
  {
    name: 'Alberti on F over C',
    hand: 'left',
    keys: [48, 57, 53, 57, 48, 57, 53, 57],
    fingers: ['51215121'],
  },
  { name: 'broken triad up', hand: 'right', keys: [60, 64, 67, 60, 64, 67], fingers: ['135135'] },
  {
    name: 'broken triad over an octave',
    hand: 'right',
    keys: [60, 64, 67, 72, 67, 64, 60],
    fingers: ['1235321'],
  },
  {
    name: 'broken triad over an octave',
    hand: 'left',
    keys: [48, 52, 55, 60, 55, 52, 48],
    fingers: ['5321235', '5421245'],
  },
  { name: 'broken octaves', hand: 'right', keys: [60, 72, 62, 74, 64, 76], fingers: ['151515'] },
  { name: 'root, fifth, octave', hand: 'left', keys: [48, 55, 60, 55], fingers: ['5212', '5213', '5121'] },
  {
    name: 'four up, a step higher each time',
    hand: 'right',
    keys: [60, 62, 64, 65, 62, 64, 65, 67, 64, 65, 67, 69],
    fingers: ['123412341234'],
    time: { beats: 4, beatType: 4 },
  },
  {
    name: 'three up, a step higher each time',
    hand: 'right',
    keys: [60, 62, 64, 62, 64, 65, 64, 65, 67, 65, 67, 69],
    fingers: ['123123123123'],
    time: { beats: 6, beatType: 8 },
  },
];

/** All of it. */
export const STANDARD_FINGERINGS: readonly StandardFingering[] = [
  ...STANDARD_SCALES,
  ...STANDARD_ARPEGGIOS,
  ...STANDARD_FIVE_FINGERS,
  ...STANDARD_CHORDS,
  ...STANDARD_CHROMATIC,
  ...STANDARD_FIGURES,
];

/** Measures that hold a line of eighths. */
const measuresFor = (count: number, time: TimeSignature): Measure[] =>
  evenMeasures(Math.ceil((count * noteValue(8)) / measureLength(time)), time);

/** The fingers that are proposed for standard material, as digits. */
export function standardFound(
  { keys, hand, time }: StandardFingering,
  change: Partial<FingeringSettings> = {},
): string {
  const { notes, settings } = keysLine(keys, hand, change);
  const { fingers } = time
    ? fingerWithFigures(notes, measuresFor(keys.length, time), settings).fingering
    : fingerLine(notes, settings);
  return notes.map((n) => fingers.get(n.id)).join('');
}
