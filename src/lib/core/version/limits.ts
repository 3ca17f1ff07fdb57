/** The limits of a level that a version can break, as data: what is said of each in a measure, and of the measures that break it. */
import { levelText } from '../arrange/levels';
import { plural } from '../plural';
import { intervalOf } from '../theory/intervalWord';
import type { Violation } from './check';

interface LimitWords {
  /** In one measure: what was found there, beside what the level allows. */
  readonly here: (found: string, allowed: string, level: string) => string;
  /** After "3 measures": what they have or do. */
  readonly one: string;
  readonly many: string;
  /** Ends the summary; by default "than level 3 allows". */
  readonly end?: (level: string) => string;
}

const interval = (of: string): string => intervalOf(Number(of));
const thanAllowed = (level: string): string => `than level ${level} allows`;
const has = (what: string, end = thanAllowed): Pick<LimitWords, 'one' | 'many' | 'end'> => ({
  one: `has ${what}`,
  many: `have ${what}`,
  end,
});

const VALUES: Readonly<Record<string, string>> = {
  1: 'whole note',
  2: 'half note',
  4: 'quarter',
  8: 'eighth',
  16: 'sixteenth',
  32: 'thirty-second',
};
/** "1/16" as "sixteenth". */
const valueName = (part: string): string => VALUES[part.replace('1/', '')] ?? `${part} note`;
/** "1/2, 1/4" as "dotted half notes and quarters". */
const dottedNames = (parts: string): string =>
  parts
    ? `dotted ${parts
        .split(', ')
        .map((p) => `${valueName(p)}s`)
        .join(' and ')}`
    : 'none';

const LIMITS: Readonly<Record<string, LimitWords>> = {
  'accidentals in the key signature': {
    here: (found, allowed, level) =>
      `${found} sharps or flats in the key signature (level ${level} allows ${allowed})`,
    ...has('more sharps or flats in the key signature'),
  },
  'range of the keyboard': {
    here: () => 'a note beyond the keyboard',
    one: 'goes beyond the keyboard',
    many: 'go beyond the keyboard',
    end: () => '',
  },
  'notes at once': {
    here: (found, allowed, level) => `${found} notes at once (level ${level} allows ${allowed})`,
    ...has('more notes at once'),
  },
  'span in semitones': {
    here: (found, allowed, level) =>
      `stretch of ${interval(found)} (this hand at level ${level}: ${interval(allowed)})`,
    ...has('a stretch wider', (level) => `than the hand or level ${level} allows`),
  },
  'leap in semitones': {
    here: (found, allowed, level) =>
      `leap of ${interval(found)} (level ${level} allows ${interval(allowed)})`,
    ...has('a leap wider'),
  },
  'left-hand onsets in a measure': {
    here: (found, allowed, level) =>
      `${plural(Number(found), 'note')} in the measure (level ${level} allows ${allowed})`,
    ...has('more left-hand notes'),
  },
  tuplets: {
    here: (found, allowed, level) =>
      `${found} (level ${level} allows ${allowed === 'none' ? 'no tuplets' : 'only triplets'})`,
    ...has('tuplets', (level) => `that level ${level} doesn’t allow`),
  },
  'shortest note': {
    here: (found, allowed, level) => `${valueName(found)}s (level ${level} allows ${valueName(allowed)}s)`,
    ...has('shorter notes'),
  },
  'dotted notes': {
    here: (found, allowed, level) =>
      `${found.replace(/1\/\d+/, valueName)} (level ${level} allows ${dottedNames(allowed)})`,
    ...has('dotted notes', (level) => `that level ${level} doesn’t allow`),
  },
  ties: {
    here: (found, allowed, level) =>
      found === 'inside a measure'
        ? `a tie inside the measure (level ${level} allows ties only ${allowed})`
        : `${found} (level ${level} allows ties ${allowed})`,
    ...has('ties', (level) => `that level ${level} doesn’t allow`),
  },
  'hands overlap': {
    here: () => 'the left hand is at or above the right',
    ...has('overlapping hands', () => ''),
  },
  pedal: {
    here: (_found, _allowed, level) => `pedal (level ${level} has none)`,
    ...has('pedal', (level) => `, which level ${level} doesn’t`),
  },
};

const HAND = { right: 'Right hand: ', left: 'Left hand: ', both: '' } as const;

/** "Left hand: leap of a tenth (level 3 allows an octave)": what breaks a limit of a level in a measure. */
export function violationText({ hand, limit, found, allowed }: Violation, level: number): string {
  const words = LIMITS[limit];
  const text = words
    ? words.here(found, allowed, levelText(level))
    : `${limit}: ${found}, allowed ${allowed}`;
  const said = `${HAND[hand]}${text}`;
  return said.charAt(0).toUpperCase() + said.slice(1);
}

/** "1 measure has a leap wider than level 3 allows": one clause for each limit that is broken. */
export function limitsText(
  violations: readonly Pick<Violation, 'measure' | 'limit'>[],
  level: number,
): string[] {
  const over = new Map<string, Set<number>>();
  for (const { limit, measure } of violations)
    over.set(limit, (over.get(limit) ?? new Set<number>()).add(measure));
  return [...over].map(([limit, { size }]) => {
    const words = LIMITS[limit];
    const clause = plural(size, 'measure', {
      one: words?.one ?? `is over the limit of ${limit}`,
      many: words?.many ?? `are over the limit of ${limit}`,
    });
    const end = words?.end?.(levelText(level)) ?? '';
    return `${clause} ${end}`.replace(' ,', ',').trim();
  });
}
