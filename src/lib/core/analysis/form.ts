/**
 * Sections, phrases and what comes again. Sections begin at rehearsal marks and double bars, failing those where what
 * comes again begins and ends, failing that every eight measures. A section that is like an earlier one has its letter,
 * with a prime where it differs, and says where.
 */
import type { Measure, Score } from '../score/score';
import { playingOrder } from '../score/unfold';
import { proposedStarts } from './boundaries';
import { contentsOf, difference, likeness, shiftBetween, type MeasureContent } from './likeness';

export interface Section {
  readonly letter: string;
  /** How many variants of the letter came before: 1 for A′. */
  readonly prime: number;
  /** The name the source gives, or the letter with its primes. */
  readonly label: string;
  /** First and last measure, by index. A pickup belongs to the section it leads into. */
  readonly from: number;
  readonly to: number;
  /** Label of the earlier section that this one repeats measure by measure. */
  readonly repeats?: string;
  /** The earlier section that this one varies, and where. */
  readonly variant?: Variant;
}

export interface Variant {
  /** Index of the earlier section. */
  readonly of: number;
  /** Semitones by which it is moved; 0 where it stands at the same pitch. */
  readonly transposed: number;
  readonly differences: readonly MeasureDifference[];
}

/** A measure of a variant, by index, with the notes it has and those of the earlier section that it has not. */
export interface MeasureDifference {
  readonly measure: number;
  readonly as: number;
  readonly now: readonly string[];
  readonly before: readonly string[];
}

/** Two to four measures, engraved on one line and practised as one chunk. */
export interface Phrase {
  readonly section: number;
  readonly from: number;
  readonly to: number;
}

export interface Form {
  readonly sections: readonly Section[];
  readonly phrases: readonly Phrase[];
  /** For each measure the index of the first measure that is note for note the same; its own index where it is new. */
  readonly firstSeen: readonly number[];
  /**
   * Measures to be learned, and in all as they are played, repeats unfolded. A pickup is not counted: it is part of the
   * measure that it is borrowed from.
   */
  readonly newMeasures: number;
  readonly measureCount: number;
}

const USUAL_SECTION = 8;
const USUAL_PHRASE = 4;

/** One stone of the folded path: a measure, or a run of measures that stand already. */
export type PathItem =
  | { readonly kind: 'measure'; readonly measure: number; readonly section: number }
  | {
      readonly kind: 'again';
      readonly from: number;
      readonly to: number;
      readonly as: number;
      readonly section: number;
    };

/** Shortest run that is worth folding. */
const SHORTEST_FOLD = 2;

/** The piece as a path on which what comes again is drawn once: runs of repeated measures inside a section are folded. */
export function foldedPath(form: Form): PathItem[] {
  return form.sections.flatMap((section, index) => {
    const items: PathItem[] = [];
    for (let i = section.from; i <= section.to;) {
      const { as: first, length } = longestEarlierRun(form.firstSeen, i, section.to);
      if (length >= SHORTEST_FOLD) {
        items.push({ kind: 'again', from: i, to: i + length - 1, as: first, section: index });
        i += length;
      } else {
        items.push({ kind: 'measure', measure: i, section: index });
        i += 1;
      }
    }
    return items;
  });
}

/** The longest run of measures from `start` that stands already, and where it begins there. */
function longestEarlierRun(
  firstSeen: readonly number[],
  start: number,
  last: number,
): { as: number; length: number } {
  let best = { as: start, length: 0 };
  for (let as = 0; as < start; as++) {
    let length = 0;
    while (
      start + length <= last &&
      as + length < start &&
      firstSeen[as + length] === firstSeen[start + length]
    )
      length += 1;
    if (length > best.length) best = { as, length };
  }
  return best;
}

/** The form of a source, from its frame and notes. */
export function formOf(score: Score): Form {
  const contents = contentsOf(score);
  const firstSeen = firstSeenOf(contents);
  const starts = sectionStarts(score.measures, contents);
  const sections: Section[] = [];
  let letters = 0;
  starts.forEach((from, i) => {
    const to = (starts[i + 1] ?? score.measures.length) - 1;
    const model = closestEarlier(sections, from, to, contents, score.measures);
    const letter = model ? sections[model.of]!.letter : LETTERS[letters++ % LETTERS.length]!;
    const isRepeat = model !== undefined && model.differences.length === 0 && model.transposed === 0;
    const original = model && sections[model.of]!;
    const prime =
      !model || !original
        ? 0
        : isRepeat
          ? original.prime
          : 1 + Math.max(...sections.filter((s) => s.letter === letter).map((s) => s.prime));
    const marked = score.measures.slice(from, to + 1).find((m) => m.section)?.section;
    sections.push({
      letter,
      prime,
      label: marked ?? letter + '′'.repeat(prime),
      from,
      to,
      ...(isRepeat ? { repeats: original!.label } : model ? { variant: model } : {}),
    });
  });
  return {
    sections,
    phrases: sections.flatMap((section, i) => phrasesOf(section, i, score.measures)),
    firstSeen,
    ...countNew(score.measures, firstSeen),
  };
}

function countNew(
  measures: readonly Measure[],
  firstSeen: readonly number[],
): { newMeasures: number; measureCount: number } {
  const counted = measures.filter((m) => !isPickup(m));
  return {
    newMeasures: counted.filter((m) => firstSeen[m.index] === m.index).length,
    measureCount: playingOrder(measures).filter((i) => !isPickup(measures[i]!)).length,
  };
}

const LETTERS = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];

/** A pickup: a measure that lacks its beginning, at the start of the piece or of a section that borrows a beat. */
const isPickup = (measure: Measure): boolean =>
  measure.beginsAt > 0 && (measure.index === 0 || measure.section !== undefined);

function sectionStarts(measures: readonly Measure[], contents: readonly MeasureContent[]): number[] {
  const marks = measures.filter(
    (m, i) =>
      m.section || m.repeatStart || measures[i - 1]?.barline === 'double' || measures[i - 1]?.repeatEnd,
  );
  const named = marks.filter((m) => m.section);
  const used = named.length > 0 ? named : marks;
  const starts = new Set([0, ...used.map((m) => m.index)]);
  if (measures[0] && isPickup(measures[0])) starts.delete(1); // the pickup goes with what follows
  if (used.length === 0) {
    const first = measures[0] && isPickup(measures[0]) ? 1 : 0;
    const proposed = proposedStarts(contents, first);
    if (proposed.length > 0) return [0, ...proposed.filter((start) => start > first)];
    // A remainder shorter than half a section stays with the section before it.
    for (let i = first + USUAL_SECTION; i <= measures.length - USUAL_SECTION / 2; i += USUAL_SECTION)
      starts.add(i);
  }
  return [...starts].sort((a, b) => a - b);
}

function phrasesOf(section: Section, index: number, measures: readonly Measure[]): Phrase[] {
  const phrases: Phrase[] = [];
  let from = section.from;
  const body = measures[from] && isPickup(measures[from]!) ? from + 1 : from;
  for (let start = body; start <= section.to;) {
    const left = section.to - start + 1;
    // Five measures are three and two, six are three and three: never one left alone.
    const size =
      left <= USUAL_PHRASE
        ? left
        : left < 2 * USUAL_PHRASE && left !== 7
          ? Math.ceil(left / 2)
          : USUAL_PHRASE;
    phrases.push({ section: index, from, to: start + size - 1 });
    start += size;
    from = start;
  }
  if (phrases.length === 0) phrases.push({ section: index, from: section.from, to: section.to });
  return phrases;
}

function firstSeenOf(contents: readonly MeasureContent[]): number[] {
  const first = new Map<string, number>();
  return contents.map(({ key }, i) => {
    if (!first.has(key)) first.set(key, i);
    return first.get(key)!;
  });
}

/** From how alike, measure by measure, a section counts as a variant of an earlier one. */
const VARIANT = 0.6;

/** The earlier section most like the measures `from` to `to`, if any is like them; pickups are left out of it. */
function closestEarlier(
  sections: readonly Section[],
  from: number,
  to: number,
  contents: readonly MeasureContent[],
  measures: readonly Measure[],
): Variant | undefined {
  const bodyOf = (start: number, end: number): number[] =>
    Array.from({ length: end - start + 1 }, (_, i) => start + i).filter((i) => !isPickup(measures[i]!));
  const own = bodyOf(from, to);
  let best: { variant: Variant; alike: number } | undefined;
  sections.forEach((section, of) => {
    const other = bodyOf(section.from, section.to);
    if (other.length !== own.length || own.length === 0) return;
    const moved = own.map((m, i) => shiftBetween(contents[other[i]!]!, contents[m]!));
    const usual = mostCommon(moved);
    for (const transposed of new Set([0, usual])) {
      const alike = own.map((m, i) => likeness(contents[other[i]!]!, contents[m]!, transposed));
      const mean = alike.reduce((a, b) => a + b, 0) / alike.length;
      // Of equally like ones the earliest, and rather untransposed.
      if (mean < VARIANT || (best && mean <= best.alike + 1e-9)) continue;
      const differences = own.flatMap((measure, i): MeasureDifference[] =>
        alike[i]! === 1
          ? []
          : [{ measure, as: other[i]!, ...difference(contents[other[i]!]!, contents[measure]!, transposed) }],
      );
      best = { variant: { of, transposed, differences }, alike: mean };
    }
  });
  return best?.variant;
}

function mostCommon(numbers: readonly number[]): number {
  const count = new Map<number, number>();
  for (const n of numbers) count.set(n, (count.get(n) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}
