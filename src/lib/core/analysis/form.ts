/**
 * Sections, phrases and what comes again. A section that is like an earlier one has its letter, with a prime where it
 * differs, and says where.
 */
import { endOf } from '../score/metre';
import { byMeasure } from '../score/query';
import { pitchName } from '../theory/pitch';
import type { Measure, Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { playingOrder } from '../score/unfold';
import {
  commonStrokes,
  contentsOf,
  difference,
  likeness,
  shiftBetween,
  type MeasureContent,
} from './private/likeness';
import { comparedByHand, comparedLines, type LineComparison } from './byHand';
import { melodyOf } from './melody';
import { pickupsInto } from './private/pickups';
import { rolesOf, type SectionFacts, type SectionRole } from './roles';
import { isPickup, sectionStarts, type SectionStart } from './sections';
import { instrumentals } from './instrumentals';
import { sectionsWorthNaming } from './private/loops';

export interface Section {
  readonly letter: string;
  /** How many variants of the letter came before: 1 for A′. */
  readonly prime: number;
  /** The name that the teacher or the source gives, or the letter with its primes. */
  readonly label: string;
  readonly role?: SectionRole;
  /** First and last measure, by index. A pickup belongs to the section it leads into. */
  readonly from: number;
  readonly to: number;
  /** How much of the measure before leads into it, where it borrows a pickup there. */
  readonly pickup?: Ticks;
  /** Label of the earlier section that this one repeats measure by measure. */
  readonly repeats?: string;
  /** The earlier section that this one varies, and where. */
  readonly variant?: Variant;
}

interface Variant {
  /** Index of the earlier section. */
  readonly of: number;
  /** Semitones by which it is moved; 0 where it stands at the same pitch. */
  readonly transposed: number;
  readonly differences: readonly MeasureDifference[];
  /** The same hand by hand, to the half measure. */
  readonly hands: readonly LineComparison[];
}

/** A measure of a variant, by index, with the notes it has and those of the earlier section that it has not. */
interface MeasureDifference {
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
  /** How much of the measure before leads into it. */
  readonly pickup?: Ticks;
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

const USUAL_PHRASE = 4;

/** One stone of the folded path: a measure, or a run of measures that stand already. */
export type PathItem =
  | { readonly kind: 'measure'; readonly measure: number; readonly section: number }
  | {
      readonly kind: 'again';
      readonly from: number;
      readonly to: number;
      /** The first of the measures that come again. */
      readonly as: number;
      /** How many of them: a block that goes round comes again several times in one run. */
      readonly length: number;
      readonly section: number;
    };

/** How often a block comes again in a run of it. */
export const timesOf = ({ from, to, length }: Extract<PathItem, { kind: 'again' }>): number =>
  Math.max(1, Math.round((to - from + 1) / length));

/** Shortest run that is worth folding. */
const SHORTEST_FOLD = 2;

/**
 * The piece as a path on which what comes again is drawn once: runs of repeated measures inside a section are folded. `seen` says for each
 * measure which first one it is like; runs shorter than `shortest` are not folded.
 */
export function foldedPath(
  { sections, firstSeen }: Pick<Form, 'sections' | 'firstSeen'>,
  seen: readonly number[] = firstSeen,
  shortest = SHORTEST_FOLD,
): PathItem[] {
  return sections.flatMap((section, index) => {
    const items: PathItem[] = [];
    for (let i = section.from; i <= section.to;) {
      const { as: first, length } = longestEarlierRun(seen, i, section.to);
      if (length >= shortest) {
        const block = Math.min(length, i - first);
        items.push({ kind: 'again', from: i, to: i + length - 1, as: first, length: block, section: index });
        i += length;
      } else {
        items.push({ kind: 'measure', measure: i, section: index });
        i += 1;
      }
    }
    return items;
  });
}

/**
 * The longest run of measures from `start` that stands already, and where it begins there. A block that goes round runs on into itself; it does
 * so in whole blocks.
 */
function longestEarlierRun(
  seen: readonly number[],
  start: number,
  last: number,
): { as: number; length: number } {
  let best = { as: start, length: 0 };
  for (let as = 0; as < start; as++) {
    if (seen[as] !== seen[start]) continue;
    let length = 0;
    while (start + length <= last && seen[as + length] === seen[start + length]) length += 1;
    const block = start - as;
    const whole = length > block ? length - (length % block) : length;
    if (whole > best.length) best = { as, length: whole };
  }
  return best;
}

/** The form of a source, from its frame and notes. */
export function formOf(score: Score): Form {
  const contents = contentsOf(score);
  const firstSeen = firstSeenOf(contents);
  const melody = score.parts.length > 0 ? melodyOf(score) : [];
  const pickups = score.parts.length > 0 ? pickupsInto(melody, score.measures) : [];
  const music = {
    contents,
    tunes: tunesIn(melody, score.measures),
    lines: comparedLines(score),
    measures: score.measures,
  };
  const found = sectionStarts(score, contents);
  const first = lettered(music, found, pickups);
  // Of what was only found, blocks that go round and round are one section, as a musician would name them.
  const kept = found.every((s) => s.isFound) ? sectionsWorthNaming(first) : found.map((_, i) => i);
  const starts = found.filter((_, i) => kept.includes(i));
  const sections = starts.length === found.length ? first : lettered(music, starts, pickups);
  const roles = rolesOf(factsOf(score, sections, starts));
  return {
    sections: sections.map((section, i) => {
      const decided = starts[i]?.role;
      const role: SectionRole | undefined = decided ? { role: decided, from: 'name' } : roles[i];
      return role ? { ...section, role } : section;
    }),
    phrases: sections
      .flatMap((section, i) => phrasesOf(section, i, score.measures))
      .map((phrase) => (pickups[phrase.from] ? { ...phrase, pickup: pickups[phrase.from]! } : phrase)),
    firstSeen,
    ...countNew(score.measures, firstSeen),
  };
}

/** What sections are compared by, measure by measure. */
interface ComparedMusic {
  readonly contents: readonly MeasureContent[];
  /** What the melody strikes. */
  readonly tunes: readonly MeasureContent['strokes'][];
  readonly lines: ReturnType<typeof comparedLines>;
  readonly measures: readonly Measure[];
}

/** The sections that begin so, each with its letter, and with what it repeats or varies. */
function lettered(
  music: ComparedMusic,
  starts: readonly SectionStart[],
  pickups: readonly Ticks[],
): Section[] {
  const { contents, measures } = music;
  // What leads into the next section is no part of this one: it is not compared.
  const compared = withoutLeadingOut(
    contents,
    measures,
    starts.map((s) => s.measure),
    pickups,
  );
  const sections: Section[] = [];
  let letters = 0;
  starts.forEach(({ measure: from, name }, i) => {
    const to = (starts[i + 1]?.measure ?? measures.length) - 1;
    const model = closestEarlier(sections, from, to, { ...music, contents: compared });
    const letter = model ? sections[model.of]!.letter : LETTERS[letters++ % LETTERS.length]!;
    const isRepeat = model !== undefined && model.differences.length === 0 && model.transposed === 0;
    const original = model && sections[model.of]!;
    const prime =
      !model || !original
        ? 0
        : isRepeat
          ? original.prime
          : 1 + Math.max(...sections.filter((s) => s.letter === letter).map((s) => s.prime));
    sections.push({
      letter,
      prime,
      label: name ?? letter + '′'.repeat(prime),
      from,
      to,
      ...(pickups[from] ? { pickup: pickups[from] } : {}),
      ...(isRepeat ? { repeats: original!.label } : model ? { variant: model } : {}),
    });
  });
  return sections;
}

function countNew(
  measures: readonly Measure[],
  firstSeen: readonly number[],
): { newMeasures: number; measureCount: number } {
  const counted = measures.filter((m) => !isPickup(m));
  return {
    newMeasures: counted.filter((m) => firstSeen[m.index] === m.index).length,
    measureCount: measuresPlayed(measures),
  };
}

/** Measures as they are played, repeats and endings counted, pickups not. */
export const measuresPlayed = (measures: readonly Measure[]): number =>
  playingOrder(measures).filter((i) => !isPickup(measures[i]!)).length;

const LETTERS = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'];

/** Contents in which the last measure of each section ends before the pickup to the next. */
function withoutLeadingOut(
  contents: readonly MeasureContent[],
  measures: readonly Measure[],
  starts: readonly number[],
  pickups: readonly Ticks[],
): MeasureContent[] {
  const cut = new Map(starts.filter((s) => s > 0 && pickups[s]).map((s) => [s - 1, pickups[s]!]));
  return contents.map((content, i) => {
    const pickup = cut.get(i);
    if (pickup === undefined) return content;
    const strokes = content.strokes.filter((s) => s.place < measures[i]!.length - pickup);
    return { ...content, key: `${content.key} without its last ${pickup}`, strokes };
  });
}

/** What the roles are read from. */
function factsOf(
  score: Score,
  sections: readonly Section[],
  starts: readonly { readonly name?: string | undefined }[],
): SectionFacts[] {
  const visits = new Map<number, number>();
  for (const i of playingOrder(score.measures)) visits.set(i, (visits.get(i) ?? 0) + 1);
  const runs = instrumentals(score);
  // Who comes in at the end of an instrumental sings of what follows it.
  const sung = score.parts
    .flatMap((p) => p.notes)
    .filter((n) => n.lyrics?.some((l) => l.line === 'words'))
    .map(({ onset, lyrics }) => {
      const led = runs.find(
        ({ from, to }) => onset >= score.measures[from]!.start && onset < endOf(score.measures[to]!),
      );
      return { onset: (led && score.measures[led.to + 1]?.start) ?? onset, lyrics };
    });
  return sections.map(({ letter, from, to, pickup = 0 }, i) => {
    // What is sung before the barline into a section is of that section.
    const start = score.measures[from]!.start - pickup;
    const end = endOf(score.measures[to]!) - (sections[i + 1]?.pickup ?? 0);
    const verses = new Map<number, string[]>();
    for (const note of sung)
      if (note.onset >= start && note.onset < end)
        for (const { line, verse, text } of note.lyrics ?? [])
          if (line === 'words') verses.set(verse, [...(verses.get(verse) ?? []), text.toLowerCase()]);
    return {
      letter,
      name: starts[i]?.name,
      measures: to - from + 1,
      times: visits.get(to) ?? 1,
      words: [...verses.values()].map((words) => words.join(' ')),
    };
  });
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
/**
 * How alike the melodies must be, where both have one: over equal chords another melody is another section. And from how alike they are one
 * section whatever the accompaniment does.
 */
const LIKE_TUNE = 0.35;
const SAME_TUNE = 0.8;

/** What the melody strikes in each measure. */
const tunesIn = (
  melody: ReturnType<typeof melodyOf>,
  measures: readonly Measure[],
): MeasureContent['strokes'][] =>
  byMeasure(measures, melody).map((notes, i) =>
    notes.map(({ onset, midi, pitch }) => ({
      place: onset - measures[i]!.start,
      midi,
      name: pitchName(pitch),
    })),
  );

/** The earlier section most like the measures `from` to `to`, if any is like them; pickups are left out of it. */
function closestEarlier(
  sections: readonly Section[],
  from: number,
  to: number,
  { contents, tunes, lines, measures }: ComparedMusic,
): Variant | undefined {
  const bodyOf = (start: number, end: number): number[] =>
    Array.from({ length: end - start + 1 }, (_, i) => start + i).filter((i) => !isPickup(measures[i]!));
  const own = bodyOf(from, to);
  let best: { variant: Omit<Variant, 'hands'>; alike: number; other: readonly number[] } | undefined;
  sections.forEach((section, of) => {
    // What repeats an earlier section is no likelier than that one.
    if (section.repeats !== undefined) return;
    const other = bodyOf(section.from, section.to);
    if (other.length !== own.length || own.length === 0) return;
    const moved = own.map((m, i) => shiftBetween(contents[other[i]!]!, contents[m]!));
    const usual = mostCommon(moved);
    for (const transposed of new Set([0, usual])) {
      const alike = own.map((m, i) => likeness(contents[other[i]!]!, contents[m]!, transposed));
      const all = alike.reduce((a, b) => a + b, 0) / alike.length;
      const tune = tuneLikeness(other, own, tunes, transposed);
      const mean = tune !== undefined && tune >= SAME_TUNE ? Math.max(all, tune) : all;
      if (tune !== undefined && tune < LIKE_TUNE) continue;
      // Of equally like ones the earliest, and rather untransposed.
      if (mean < VARIANT || (best && mean <= best.alike + 1e-9)) continue;
      const differences = own.flatMap((measure, i): MeasureDifference[] =>
        alike[i]! === 1
          ? []
          : [{ measure, as: other[i]!, ...difference(contents[other[i]!]!, contents[measure]!, transposed) }],
      );
      best = { variant: { of, transposed, differences }, alike: mean, other };
    }
  });
  return (
    best && {
      ...best.variant,
      hands: comparedByHand(lines, measures, best.other, own, best.variant.transposed),
    }
  );
}

/** How alike the melodies of two sections are, 0 to 1; undefined where one has none. */
function tuneLikeness(
  earlier: readonly number[],
  later: readonly number[],
  tunes: readonly MeasureContent['strokes'][],
  by: number,
): number | undefined {
  const count = (places: readonly number[]): number =>
    places.reduce((sum, place) => sum + tunes[place]!.length, 0);
  if (count(earlier) === 0 || count(later) === 0) return undefined;
  const common = later.reduce(
    (sum, place, i) => sum + commonStrokes(tunes[earlier[i]!]!, tunes[place]!, by),
    0,
  );
  return common / Math.max(count(earlier), count(later));
}

function mostCommon(numbers: readonly number[]): number {
  const count = new Map<number, number>();
  for (const n of numbers) count.set(n, (count.get(n) ?? 0) + 1);
  return [...count].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}
