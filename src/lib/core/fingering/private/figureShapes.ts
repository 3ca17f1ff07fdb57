/**
 * Figures of an accompaniment and the fingers that the chord gives them which they spell: root and fifth, broken chords, a low note
 * under its chord, a key that is struck again quickly.
 */
import type { Convention } from './convention';
import type { Event, Hand } from './event';
import type { Finger } from '../grips';
import { brokenShape } from '../shapes';

/** A figure wider than an octave is played with the hand turning, which any other fingers would only make harder. */
const WEIGHT = { figure: 6, wideFigure: 12, pair: 1.6, bass: 2, quickRepeat: 4 } as const;
const OCTAVE = 12;
/** Notes of a figure. */
const LENGTHS = [2, 3, 4, 6, 8] as const;
/** Two keys are a shape of their own from a fifth to a tenth; more than two up to a tenth. */
const [NARROWEST_PAIR, WIDEST] = [7, 16];

const outOf = (event: Event): number => event.keys[0]!.out;

/** Where a figure of `length` notes begins at `from`, the keys it touches; undefined where they spell no chord. */
function keysOf(line: readonly Event[], from: number, length: number): readonly number[] | undefined {
  const notes = line.slice(from, from + length).map(outOf);
  if (notes.length < length) return undefined;
  const outs = [...new Set(notes)].sort((a, b) => a - b);
  // It begins at an end of the chord, with the bass or with the thumb.
  if (notes[0] !== outs[0] && notes[0] !== outs.at(-1)) return undefined;
  const width = outs.at(-1)! - outs[0]!;
  if (width > WIDEST) return undefined;
  return shapeOf(outs) ? outs : undefined;
}

const shapeOf = (outs: readonly number[]): readonly Finger[] | undefined =>
  outs.length === 2 ? (outs[1]! - outs[0]! >= NARROWEST_PAIR ? [1, 5] : undefined) : brokenShape(outs);

/** What figures of an accompaniment have in common: their rhythm, and from which end of the chord they set out. */
function contourOf(line: readonly Event[], from: number, length: number): string {
  let contour = `${Math.sign(outOf(line[from + 1]!) - outOf(line[from]!))}`;
  for (let i = from + 1; i < from + length; i++) contour += ` ${line[i]!.onset - line[from]!.onset}`;
  return contour;
}

const directionAt = (line: readonly Event[], at: number): number =>
  Math.sign(outOf(line[at]!) - outOf(line[at - 1]!));

/** Whether the line goes on the same way into a figure and through its beginning: that is an arpeggio. */
const goesOn = (line: readonly Event[], at: number): boolean =>
  directionAt(line, at - 1) === directionAt(line, at) && directionAt(line, at) === directionAt(line, at + 1);

/** How many figures of `length` notes follow one another from `from` on, at one distance in time and in one rhythm. */
function timesFrom(line: readonly Event[], from: number, length: number): number {
  if (!keysOf(line, from, length)) return 0;
  const contour = contourOf(line, from, length);
  let times = 1;
  for (let at = from + length; at + length <= line.length; at += length, times += 1) {
    // Two pairs over one upper key are halves of a broken chord.
    if (
      length === 2 &&
      outOf(line[at + 1]!) === outOf(line[at - 1]!) &&
      outOf(line[at]!) !== outOf(line[at - 2]!)
    )
      break;
    const regular =
      line[at]!.onset - line[at - length]!.onset === line[from + length]!.onset - line[from]!.onset;
    if (!regular || goesOn(line, at) || !keysOf(line, at, length) || contourOf(line, at, length) !== contour)
      break;
  }
  return times;
}

/** A figure: where it stands in its line, and the keys of its chord, outwards. */
interface Figure {
  readonly from: number;
  readonly length: number;
  readonly outs: readonly number[];
}

/** Figures of one length that follow one another from a place on: those that reach furthest. */
function alikeFrom(line: readonly Event[], start: number): Figure[] {
  const best = LENGTHS.map((length) => ({ length, times: timesFrom(line, start, length) }))
    .filter(({ times }) => times > 1)
    .sort((a, b) => b.times * b.length - a.times * a.length || a.length - b.length)[0];
  return Array.from({ length: best?.times ?? 0 }, (_, i): Figure => {
    const from = start + i * best!.length;
    return { from, length: best!.length, outs: keysOf(line, from, best!.length)! };
  });
}

/** Figures that follow one another by the groups of a metre, as three beats and two do: each is as long as its group. */
function groupedFrom(line: readonly Event[], start: number): Figure[] {
  const figures: Figure[] = [];
  for (let from = start; line[from]?.opensGroup;) {
    const next = line.findIndex((event, i) => i > from && event.opensGroup);
    const length = (next < 0 ? line.length : next) - from;
    const outs = length > 1 ? keysOf(line, from, length) : undefined;
    if (!outs || (from > start && goesOn(line, from))) break;
    figures.push({ from, length, outs });
    from += length;
  }
  return figures.length > 1 ? figures : [];
}

const reachOf = (figures: readonly Figure[]): number => figures.reduce((sum, { length }) => sum + length, 0);

/** Figures that come at least twice in a row, each on its own chord. */
function figuresIn(line: readonly Event[]): Figure[] {
  const found: Figure[] = [];
  for (let start = 0; start < line.length;) {
    const [alike, grouped] = [alikeFrom(line, start), groupedFrom(line, start)];
    const best = reachOf(grouped) > reachOf(alike) ? grouped : alike;
    found.push(...best);
    start += Math.max(1, reachOf(best));
  }
  return found;
}

/** Fingers of figures; a note that closes on a key of the last one belongs to it. */
export const chordFigures = (line: readonly Event[]): [string, Convention][] =>
  figuresIn(line).flatMap(({ from, length, outs }, i, all) => {
    const isLast = all[i + 1]?.from !== from + length;
    const weight = outs.at(-1)! - outs[0]! > OCTAVE ? WEIGHT.wideFigure : WEIGHT.figure;
    return line.slice(from, from + length + (isLast ? 1 : 0)).flatMap((event): [string, Convention][] => {
      const place = outs.indexOf(outOf(event));
      return place < 0 ? [] : [[event.keys[0]!.id, byChord(shapeOf(outs)![place]!, weight)]];
    });
  });

/** Fewest and most semitones of a leap of the left hand that is a root and what stands over it. */
const [NARROWEST_LEAP, WIDEST_LEAP] = [7, 12];

/**
 * A low note of the left hand and one a fifth to an octave above it, from where the hand has come down and to where it turns back:
 * root and fifth, whether or not the figure comes again.
 */
export function rootAndFifth(line: readonly Event[]): [string, Convention][] {
  return line.flatMap((event, i): [string, Convention][] => {
    const [before, next, after] = [line[i - 1], line[i + 1], line[i + 2]];
    if (!next) return [];
    const up = outOf(event) - outOf(next);
    const comesDown = !before || outOf(before) <= outOf(event);
    const turnsBack = !after || outOf(after) > outOf(next);
    if (up < NARROWEST_LEAP || up > WIDEST_LEAP || !comesDown || !turnsBack) return [];
    return [
      [event.keys[0]!.id, byChord(5, WEIGHT.pair)],
      [next.keys[0]!.id, byChord(1, WEIGHT.pair)],
    ];
  });
}

/** Events before which the hand lifts, to take the shape of another chord. */
export function liftsIn(events: readonly Event[], hand: Hand): Set<Event> {
  const lifted = new Set<Event>();
  /** What follows a chord of which nothing is held. */
  const afterChord = new Set(events.filter((_, i) => i > 0 && isStruckChord(events[i - 1]!)));
  for (const line of singleLines(events)) {
    let before: Figure | undefined;
    for (const figure of figuresIn(line)) {
      const first = line[figure.from]!;
      // A broken chord after one that was struck together is another shape.
      if (hand === 'left' && afterChord.has(first)) lifted.add(first);
      // Two notes in the right hand are a leap of a tune.
      const isFigure = hand === 'left' || figure.length > 2;
      if (isFigure && before && before.from + before.length === figure.from && !sameKeys(before, figure))
        lifted.add(first);
      before = figure;
    }
  }
  if (hand === 'left')
    events.forEach((event, i) => {
      if (!isBass(event, events[i + 1])) return;
      if (afterChord.has(event)) lifted.add(event);
      lifted.add(events[i + 1]!);
    });
  return lifted;
}

const isStruckChord = ({ keys }: Event): boolean => keys.length > 1 && keys.every((k) => k.struck);

const sameKeys = (a: Figure, b: Figure): boolean =>
  a.outs.length === b.outs.length && a.outs.every((out, i) => out === b.outs[i]);

/** Stretches of single notes without a rest or a chord between them. */
export function singleLines(events: readonly Event[]): Event[][] {
  const lines: Event[][] = [];
  let open: Event[] = [];
  for (const event of events) {
    const isSingle = event.keys.length === 1 && event.keys[0]!.struck;
    if (!isSingle || event.legato < 0.9) {
      if (open.length > 1) lines.push(open);
      open = [];
    }
    if (isSingle) open.push(event);
  }
  if (open.length > 1) lines.push(open);
  return lines;
}

const byChord = (finger: Finger, weight: number): Convention => ({
  fingers: [finger],
  weight,
  of: 'the block chord',
});

/** Whether a note has the chord over it that follows. */
function isBass(event: Event, next: Event | undefined): boolean {
  const key = event.keys[0]!;
  return (
    event.keys.length === 1 &&
    key.struck &&
    next !== undefined &&
    next.keys.length > 1 &&
    next.keys.every((k) => k.struck && key.out - k.out >= 3)
  );
}

/** A low note of the left hand under its chord: the little finger's, wherever the chord lies. */
export const basses = (events: readonly Event[]): [string, Convention][] =>
  events.flatMap((event, i): [string, Convention][] =>
    isBass(event, events[i + 1])
      ? [[event.keys[0]!.id, { fingers: [5], weight: WEIGHT.bass, of: 'the low note under its chord' }]]
      : [],
  );

/** Strokes on one key so quick that the fingers take turns, towards the thumb: in fours 4 3 2 1, in threes 3 2 1. */
export function quickRepetitions(events: readonly Event[]): [string, Convention][] {
  const found: [string, Convention][] = [];
  for (let i = 0; i < events.length; i++) {
    if (!events[i + 1]?.quickRepeat) continue;
    let end = i + 1;
    while (events[end]?.quickRepeat) end += 1;
    const count = end - i;
    const group = count % 4 === 0 ? 4 : count % 3 === 0 ? 3 : undefined;
    if (group)
      for (let k = i; k < end; k++)
        found.push([
          events[k]!.keys[0]!.id,
          {
            fingers: [(group - ((k - i) % group)) as Finger],
            weight: WEIGHT.quickRepeat,
            of: 'a key repeated quickly',
          },
        ]);
    i = end - 1;
  }
  return found;
}
