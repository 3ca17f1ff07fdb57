/**
 * A section beside the earlier one that it comes from, hand by hand and to the half measure, as a musician says it: "the same
 * seven notes, another ending", "the left hand holds".
 */
import { countWord, plural } from '../plural';
import { byMeasure, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Score } from '../score/score';
import type { Ticks } from '../score/ticks';

/** A line that is compared: a hand of the keyboard, or where there is none the melody and what accompanies it. */
export type ComparedLine = 'right hand' | 'left hand' | 'melody' | 'accompaniment';

/** How a line is, beside what it was. */
export type LineChange =
  | 'same'
  | 'rests'
  | 'comes in'
  | 'holds'
  | 'thinner'
  | 'fuller'
  | 'rhythm'
  | 'ending'
  | 'beginning'
  | 'other';

export interface LineComparison {
  readonly line: ComparedLine;
  readonly is: LineChange;
  /** How many notes are the same, from the beginning; for another beginning, to the end. */
  readonly same: number;
  /** Where it differs, by index of the measure in the later section. */
  readonly differs: readonly { readonly measure: number; readonly half: 'first' | 'second' | 'both' }[];
}

/** What is struck together on a line. */
interface Stroke {
  /** From the beginning of its section, in ticks. */
  readonly at: Ticks;
  readonly end: Ticks;
  readonly keys: readonly number[];
}

/** Fewest notes in common that are worth saying. */
const WORTH_SAYING = 3;
/** Share of the time that few strokes must fill to be held. */
const HELD = 0.8;

/** A line with its notes by measure. */
interface LineNotes {
  readonly line: ComparedLine;
  readonly notes: readonly (readonly SoundingNote[])[];
}

/** The hands of a keyboard that plays alone; else the melody, and all that accompanies it. */
export function comparedLines({ parts, measures }: Score): readonly LineNotes[] {
  const lineOf = (
    line: ComparedLine,
    has: (part: number, staff: number) => boolean = () => true,
  ): LineNotes => ({
    line,
    notes: byMeasure(
      measures,
      parts.flatMap((part, index) => soundingNotes(part.notes).filter((n) => has(index, n.staff))),
    ),
  });
  const melody = parts.findIndex((p) => p.role === 'melody');
  if (melody >= 0)
    return [
      lineOf('melody', (part) => part === melody),
      ...(parts.length > 1 ? [lineOf('accompaniment', (part) => part !== melody)] : []),
    ];
  const keyboard = parts.findIndex((p) => p.staves > 1 || p.notes.some((n) => n.staff === 2));
  if (keyboard < 0) return [lineOf('melody', (part) => part === 0)];
  return [
    lineOf('right hand', (part, staff) => part === keyboard && staff === 1),
    lineOf('left hand', (part, staff) => part === keyboard && staff === 2),
  ];
}

/** Lines of two sections side by side: measures by index, the same count in both; `by` semitones are added to the earlier one. */
export const comparedByHand = (
  lines: readonly LineNotes[],
  measures: readonly Measure[],
  earlier: readonly number[],
  later: readonly number[],
  by: number,
): LineComparison[] =>
  lines.flatMap(({ line, notes }) => {
    const [before, now] = [strokesIn(notes, earlier, measures, by), strokesIn(notes, later, measures, 0)];
    return before.length === 0 && now.length === 0
      ? []
      : [{ line, ...changeOf(before, now, later, measures) }];
  });

function strokesIn(
  notes: LineNotes['notes'],
  places: readonly number[],
  measures: readonly Measure[],
  by: number,
): Stroke[] {
  const first = measures[places[0]!]!.start;
  const strokes = new Map<Ticks, { end: Ticks; keys: number[] }>();
  for (const { onset, duration, midi } of places.flatMap((place) => notes[place]!)) {
    const at = onset - first;
    const stroke = strokes.get(at) ?? { end: 0, keys: [] };
    stroke.keys.push(midi + by);
    stroke.end = Math.max(stroke.end, at + duration);
    strokes.set(at, stroke);
  }
  return [...strokes]
    .map(([at, { end, keys }]) => ({ at, end, keys: keys.sort((a, b) => a - b) }))
    .sort((a, b) => a.at - b.at);
}

const sameKeys = (a: Stroke, b: Stroke): boolean => a.keys.join() === b.keys.join();
const isSame = (a: Stroke | undefined, b: Stroke | undefined): boolean =>
  !!a && !!b && a.at === b.at && sameKeys(a, b);

function changeOf(
  before: readonly Stroke[],
  now: readonly Stroke[],
  later: readonly number[],
  measures: readonly Measure[],
): Omit<LineComparison, 'line'> {
  const differs = differencesIn(before, now, later, measures);
  const from = commonFrom(before, now);
  const to = commonFrom([...before].reverse(), [...now].reverse());
  const is = kindOf(before, now, from, to, differs.length === 0);
  const common = is === 'beginning' ? now.slice(now.length - to) : now.slice(0, from);
  return { is, same: common.reduce((sum, s) => sum + s.keys.length, 0), differs };
}

function commonFrom(before: readonly Stroke[], now: readonly Stroke[]): number {
  let count = 0;
  while (count < Math.min(before.length, now.length) && isSame(before[count], now[count])) count += 1;
  return count;
}

function kindOf(
  before: readonly Stroke[],
  now: readonly Stroke[],
  from: number,
  to: number,
  isEqual: boolean,
): LineChange {
  if (isEqual) return 'same';
  if (now.length === 0) return 'rests';
  if (before.length === 0) return 'comes in';
  if (isPartOf(now, before)) return isHeld(now, before) ? 'holds' : 'thinner';
  if (isPartOf(before, now)) return 'fuller';
  if (before.length === now.length && before.every((s, i) => sameKeys(s, now[i]!))) return 'rhythm';
  if (from >= WORTH_SAYING && to === 0) return 'ending';
  if (to >= WORTH_SAYING && from === 0) return 'beginning';
  return 'other';
}

/** Whether all that is struck in some strokes is struck in others, there or, held on, from there. */
const isPartOf = (part: readonly Stroke[], whole: readonly Stroke[]): boolean =>
  part.every((s) => {
    const own = whole.filter((w) => w.at >= s.at && w.at < s.end);
    return own[0]?.at === s.at && s.keys.every((key) => own.some((w) => w.keys.includes(key)));
  });

/** Whether fewer strokes fill the time of more. */
function isHeld(now: readonly Stroke[], before: readonly Stroke[]): boolean {
  if (now.length >= before.length) return false;
  const length = (strokes: readonly Stroke[]): Ticks => strokes.reduce((sum, s) => sum + s.end - s.at, 0);
  const span = Math.max(...before.map((s) => s.end)) - before[0]!.at;
  return length(now) >= HELD * span;
}

/** The measures of the later section in which a line differs, and in which half. */
function differencesIn(
  before: readonly Stroke[],
  now: readonly Stroke[],
  later: readonly number[],
  measures: readonly Measure[],
): LineComparison['differs'] {
  const first = measures[later[0]!]!.start;
  return later.flatMap((index): LineComparison['differs'] => {
    const { start, length } = measures[index]!;
    const halves = [0, 1].map((half) => {
      const [from, to] = [start - first + (half * length) / 2, start - first + ((half + 1) * length) / 2];
      const text = (strokes: readonly Stroke[]): string =>
        strokes
          .filter((s) => s.at >= from && s.at < to)
          .map((s) => `${s.at}:${s.keys.join(',')}`)
          .join(' ');
      return text(before) !== text(now);
    });
    const [one, two] = halves;
    return one || two ? [{ measure: index, half: one && two ? 'both' : one ? 'first' : 'second' }] : [];
  });
}

/** "the same seven notes" */
const sameNotes = (count: number): string => `the same ${countWord(count)} ${count === 1 ? 'note' : 'notes'}`;

/** Most places that are named. */
const MOST_PLACES = 3;

/** "6 (second half)", by the printed number. */
const placeText = (
  { measure, half }: LineComparison['differs'][number],
  numbers: readonly string[],
): string => `${numbers[measure] ?? ''}${half === 'both' ? '' : ` (${half} half)`}`;

/** "in measure 6 (second half)", "in measures 6, 7 and 9" */
function where({ differs }: LineComparison, numbers: readonly string[]): string {
  const named = differs.slice(0, MOST_PLACES).map((place) => placeText(place, numbers));
  const more = differs.length - named.length;
  const last = more > 0 ? plural(more, 'measure').replace(/(measures?)/, 'more $1') : named.pop()!;
  return `in ${differs.length === 1 ? 'measure' : 'measures'} ${named.length > 0 ? `${named.join(', ')} and ` : ''}${last}`;
}

/** How a line compares, in a clause: "the right hand has the same seven notes, then another ending in measure 8 (second half)". */
export function lineText(comparison: LineComparison, numbers: readonly string[]): string {
  const { line, is, same } = comparison;
  const at = (): string => where(comparison, numbers);
  const [first, last] = [comparison.differs[0], comparison.differs.at(-1)];
  switch (is) {
    case 'same':
      return `the ${line} is the same`;
    case 'rests':
      return `the ${line} rests`;
    case 'comes in':
      return `the ${line} comes in`;
    case 'holds':
      return `the ${line} holds`;
    case 'thinner':
      return `the ${line} has fewer notes ${at()}`;
    case 'fuller':
      return `the ${line} has more notes ${at()}`;
    case 'rhythm':
      return `the ${line} has the same notes in another rhythm ${at()}`;
    case 'ending':
      return `the ${line} has ${sameNotes(same)}, then another ending from measure ${placeText(first!, numbers)} on`;
    case 'beginning':
      return `the ${line} has another beginning up to measure ${placeText(last!, numbers)}, then ${sameNotes(same)}`;
    case 'other':
      return `the ${line} has other notes ${at()}`;
  }
}
