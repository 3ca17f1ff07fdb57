/**
 * Sections, phrases and what comes again. Sections begin at rehearsal marks and double bars, failing those every
 * eight measures; a section whose measures all stand already is folded into the earlier one.
 */
import { toMidi } from '../score/pitch';
import { endOf } from '../score/metre';
import type { Measure, Score } from '../score/score';

export interface Section {
  readonly letter: string;
  /** The name the source gives, or the letter. */
  readonly label: string;
  /** First and last measure, by index. A pickup belongs to the section it leads into. */
  readonly from: number;
  readonly to: number;
  /** Letter of the earlier section that this one repeats measure by measure. */
  readonly repeats?: string;
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
  /** Measures to be learned, and in all. A pickup is not counted: it is part of the measure that it is borrowed from. */
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
  const firstSeen = firstSeenOf(score);
  const starts = sectionStarts(score.measures);
  const sections: Section[] = [];
  let letters = 0;
  starts.forEach((from, i) => {
    const to = (starts[i + 1] ?? score.measures.length) - 1;
    const earlier = sections.find((s) => isRepeat(s, from, to, firstSeen, score.measures));
    const letter = earlier?.letter ?? LETTERS[letters++ % LETTERS.length]!;
    const marked = score.measures.slice(from, to + 1).find((m) => m.section)?.section;
    sections.push({
      letter,
      label: marked ?? letter,
      from,
      to,
      ...(earlier ? { repeats: earlier.label } : {}),
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
    measureCount: counted.length,
  };
}

const LETTERS = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];

/** A pickup: a measure that lacks its beginning, at the start of the piece or of a section that borrows a beat. */
const isPickup = (measure: Measure): boolean =>
  measure.beginsAt > 0 && (measure.index === 0 || measure.section !== undefined);

function sectionStarts(measures: readonly Measure[]): number[] {
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

/** The content of a measure as text: equal texts are equal music. */
function contentKeys(score: Score): string[] {
  const noteless = score.parts.every((p) => p.notes.length === 0);
  return score.measures.map((m) => {
    const inside = (onset: number): boolean => onset >= m.start && onset < endOf(m);
    const notes = score.parts.flatMap((part, p) =>
      part.notes
        .filter((n) => inside(n.onset))
        .map((n) => `${p}.${n.staff}:${n.onset - m.start}+${n.duration}=${toMidi(n.pitch)}${n.tie ?? ''}`),
    );
    const chords = score.chordSymbols
      .filter((s) => inside(s.onset))
      .map((s) => `${s.onset - m.start}${JSON.stringify(s.chord)}`);
    // In a chart the chord that goes on is all that a measure without a symbol holds.
    const held = noteless ? score.chordSymbols.findLast((s) => s.onset <= m.start)?.chord : undefined;
    return [
      held ? JSON.stringify(held) : '',
      m.length,
      m.beginsAt,
      m.time.beats,
      m.time.beatType,
      m.key.fifths,
      ...notes.sort(),
      ...chords,
    ].join(' ');
  });
}

function firstSeenOf(score: Score): number[] {
  const first = new Map<string, number>();
  return contentKeys(score).map((key, i) => {
    if (!first.has(key)) first.set(key, i);
    return first.get(key)!;
  });
}

function isRepeat(
  earlier: Section,
  from: number,
  to: number,
  firstSeen: readonly number[],
  measures: readonly Measure[],
): boolean {
  const start = isPickup(measures[earlier.from]!) ? earlier.from + 1 : earlier.from;
  const length = to - from + 1;
  if (earlier.repeats || earlier.to - start + 1 !== length) return false;
  return Array.from({ length }, (_, i) => firstSeen[from + i] === firstSeen[start + i]).every(Boolean);
}
