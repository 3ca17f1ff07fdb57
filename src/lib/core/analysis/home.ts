/**
 * Where a piece is at home. The evidence, in its order: the teacher's word; a mode that the source names; written chords and their
 * cadences; what begins and closes under the first signature; the notes' profile. Where all notes contradict the signature, theirs
 * is the home. All seven modes of the signature are homes that
 * music can have; where two readings are near, both are given.
 */
import { shownAccidentals } from '../score/accidentals';
import { endOf } from '../score/metre';
import { stage } from '../pipeline/memo';
import {
  byMeasure,
  endOfScore,
  isOneLine,
  measureAt,
  soundingNotes,
  type SoundingNote,
} from '../score/query';
import type { Measure, Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import { chordTones, type Chord } from '../theory/chord';
import { pitchClass } from '../theory/fifths';
import { MOST_ACCIDENTALS, scaleFifths, tonicFifths, type Key } from '../theory/key';
import { hasMinorThird, MODES, type Mode } from '../theory/modes';
import { bothModes, keyFit, keyFromProfile } from './keyProfile';

/** A key that the music can be read in, and how much speaks for it. */
interface HomeReading {
  readonly key: Key;
  readonly weight: number;
}

/** How far behind the first a reading may be to be offered beside it. */
const NEAR = 1.3;

/** The main key of a score. */
export const keyOf = (score: Score): Key => homesOf(score)[0]!.key;

/** The second-best reading, where it is near, also beside a mode that the source names. Undefined where the teacher has said. */
export function otherHome(score: Score): Key | undefined {
  if (score.home) return undefined;
  if (contradicting(score)) return score.measures[0]!.key;
  const main = keyOf(score);
  const readings = firstReadings(score);
  const own = readings.find((r) => r.key.mode === main.mode)!;
  const other = readings.find((r) => r !== own)!;
  return own.weight - other.weight < NEAR ? other.key : undefined;
}

/** The measures under the first signature. */
function firstRegion({ measures }: Score): readonly Measure[] {
  const first = measures[0]!.key;
  return measures.filter((m) => m.key.fifths === first.fifths && m.key.mode === first.mode);
}

/** What can be read under the first signature: asked for again and again while a piece is analysed, and weighed once. */
const firstReadings = stage('home', (score: Score) => readingsOf(score, firstRegion(score)));

/** The homes that a teacher can choose from: the modes of the signature, then the major and minor keys of the others. */
export const homeChoices = (fifths: number): readonly Key[] => [
  ...MODES.map((mode): Key => ({ fifths, mode })),
  ...Array.from({ length: 2 * MOST_ACCIDENTALS + 1 }, (_, i) => i - MOST_ACCIDENTALS)
    .filter((other) => other !== fifths)
    .flatMap((other) => (['major', 'minor'] as const).map((mode): Key => ({ fifths: other, mode }))),
];

/** All readings of the main key, the likeliest first: those of the first signature, unless the notes contradict it. */
export function homesOf(score: Score): readonly HomeReading[] {
  if (score.home) return [{ key: score.home, weight: Infinity }];
  const first = score.measures[0]!.key;
  const heard = contradicting(score);
  if (heard) return [{ key: heard, weight: Infinity }, ...firstReadings(score)];
  // A signature for which the source names a mode is its word.
  if (first.mode !== 'major') return [{ key: first, weight: Infinity }];
  return firstReadings(score);
}

/** The key that the signature names, where the notes are in another throughout; undefined where they keep to it. */
export const contradictedKey = (score: Score): Key | undefined =>
  !score.home && contradicting(score) ? score.measures[0]!.key : undefined;

/** By how much another key must fit all the notes better before the signature is doubted. */
const DOUBT = 0.12;
/** Measures at each end that a signature must be wrong for, too. */
const ENDS = 2;

/**
 * The key of which all the notes speak, where the one signature of a score contradicts them and makes more accidentals necessary: a
 * file that names no key, or the wrong one.
 */
const contradicting = (score: Score): Key | undefined => heardKey(score).key;

const heardKey = stage('heard key', (score: Score): { readonly key?: Key } => {
  const { key } = score.measures[0]!;
  if (score.measures.some((m) => m.changes?.some((c) => c.key) || m.key.fifths !== key.fifths)) return {};
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes));
  if (notes.length === 0) return {};
  const heard = keyFromProfile(weightsOf(notes));
  const isBetter = (own: readonly SoundingNote[]): boolean => {
    const weights = weightsOf(own);
    return keyFit(weights, heard) - Math.max(...bothModes(key.fifths).map((k) => keyFit(weights, k))) > DOUBT;
  };
  if (heard.fifths === key.fifths || !isBetter(notes)) return {};
  // A piece that begins and ends as it is signed is elsewhere between.
  const [begins, ends] = [
    score.measures[ENDS] ?? score.measures.at(-1)!,
    score.measures.at(-1 - ENDS) ?? score.measures[0]!,
  ];
  const outer = notes.filter((n) => n.onset < begins.start || n.onset > ends.start);
  if (outer.length > 0 && !isBetter(outer)) return {};
  const signed = { ...score, measures: score.measures.map((m) => ({ ...m, key: heard })) };
  return accidentalsIn(signed) < accidentalsIn(score) ? { key: heard } : {};
});

/** How many accidentals stand before the notes of a score. */
const accidentalsIn = ({ parts, measures }: Score): number =>
  parts.reduce((sum, part) => {
    const inMeasures = byMeasure(measures, part.notes);
    return sum + measures.reduce((own, m, i) => own + shownAccidentals(m, inMeasures[i]!).size, 0);
  }, 0);

/** The key of a passage under a signature of its own: where it is near, the tonic of the whole goes on. */
export function keyUnder(score: Score, measures: readonly Measure[], main: Key): Key {
  const { key } = measures[0]!;
  if (key.mode !== 'major') return key;
  const home = pitchClass(tonicFifths(main));
  return [...readingsOf(score, measures)].sort(
    (a, b) =>
      b.weight +
      (pitchClass(tonicFifths(b.key)) === home ? PARALLEL : 0) -
      a.weight -
      (pitchClass(tonicFifths(a.key)) === home ? PARALLEL : 0),
  )[0]!.key;
}

/** What it speaks for a key that its tonic is that of the whole: minor after major on the same note. */
const PARALLEL = 0.6;

/** How likely each mode is before a note is heard. */
const PRIOR: Readonly<Record<Mode, number>> = {
  major: 0.35,
  minor: 0.3,
  mixolydian: -0.1,
  dorian: -0.1,
  phrygian: -0.25,
  lydian: -0.45,
  locrian: -1.2,
};

function readingsOf(score: Score, measures: readonly Measure[]): readonly HomeReading[] {
  const { fifths } = measures[0]!.key;
  const own = new Set(measures.map((m) => m.index));
  const isWhole = own.size === score.measures.length;
  const all = score.parts.flatMap((p) => soundingNotes(p.notes)).sort((a, b) => a.onset - b.onset);
  const notes = isWhole
    ? all
    : byMeasure(score.measures, all).flatMap((inside, i) => (own.has(i) ? inside : []));
  const chords = chordsIn(score, (onset) => isWhole || own.has(measureAt(score.measures, onset).index));
  const weights = weightsOf(notes);
  const total = weights.reduce((a, b) => a + b, 0);
  const ends = endsOf(measures, notes);
  // Where the piece goes on under another signature this is no close.
  const closes = own.has(score.measures.length - 1) ? 1 : GOES_ON;
  const isShort = chords.length < FEWEST_CHORDS && notes.length < FEWEST_NOTES;
  return MODES.map((mode): HomeReading => {
    const key: Key = { fifths, mode };
    return {
      key,
      weight:
        PRIOR[mode] -
        (isShort && mode !== 'major' && mode !== 'minor' ? SHORT : 0) +
        (chords.length >= FEWEST_CHORDS
          ? byChords(chords, key, closes) +
            (total > 0 ? byNotes(weights, total, ends, key, closes) * BESIDE_CHORDS : 0)
          : total > 0
            ? byNotes(weights, total, ends, key, closes)
            : 0),
    };
  }).sort((a, b) => b.weight - a.weight);
}

/** Chords from which they say more than the notes, and what the notes then still count. */
const FEWEST_CHORDS = 3;
const BESIDE_CHORDS = 0.35;
/** Share of what a close says where the piece goes on after it. */
const GOES_ON = 0.3;
/** Notes below which a mode is not heard, and what it costs there. */
const FEWEST_NOTES = 8;
const SHORT = 1;

interface Struck {
  readonly chord: Chord;
  readonly duration: Ticks;
}

function chordsIn(score: Score, isInside: (onset: Ticks) => boolean): readonly Struck[] {
  const end = endOfScore(score);
  const sorted = [...score.chordSymbols].sort((a, b) => a.onset - b.onset);
  return sorted.flatMap(({ onset, chord }, i) =>
    chord && isInside(onset) ? [{ chord, duration: (sorted[i + 1]?.onset ?? end) - onset }] : [],
  );
}

/** What speaks for a home: chords. */
const FIRST_CHORD = 0.6;
const LAST_CHORD = 1;
const ON_THE_WAY = 0.3;
const SHARE_OF_TIME = 2;
const CADENCE = 0.4;
const CADENCES_AT_MOST = 1.4;
/** The second degree before it: ii–V–I. */
const PREPARED = 0.3;
const MODAL_CADENCE = 0.3;
/** The home's own dominant stands somewhere, whether or not it is led home. */
const OWN_DOMINANT = 0.35;

/** Roots, in semitones above home, of what leads home in each mode beside V: ♭VII, ♭II, II. */
const MODAL: Readonly<Partial<Record<Mode, readonly number[]>>> = {
  mixolydian: [10],
  dorian: [10, 5],
  minor: [10, 5],
  phrygian: [1, 10],
  lydian: [2],
};

function byChords(chords: readonly Struck[], key: Key, closes: number): number {
  const home = pitchClass(tonicFifths(key));
  const above = (chord: Chord): number => (pitchClass(chord.root) - home + 12) % 12;
  const third = hasMinorThird(key.mode) ? 3 : 4;
  const intervals = (chord: Chord): ReadonlySet<number> =>
    new Set(chordTones(chord).map((t) => (pitchClass(t) - pitchClass(chord.root) + 12) % 12));
  const isHome = (chord: Chord): boolean => {
    const tones = intervals(chord);
    return above(chord) === 0 && (tones.has(third) || !(tones.has(3) || tones.has(4)));
  };
  const isDominant = (chord: Chord): boolean => above(chord) === 7 && intervals(chord).has(4);
  const time = chords.reduce((sum, c) => sum + c.duration, 0);
  const atHome = chords.reduce((sum, c) => sum + (isHome(c.chord) ? c.duration : 0), 0);
  let cadences = 0;
  chords.forEach(({ chord }, i) => {
    const [before, earlier] = [chords[i - 1]?.chord, chords[i - 2]?.chord];
    if (!before || !isHome(chord)) return;
    if (isDominant(before))
      cadences += CADENCE + (earlier && above(earlier) === 2 && intervals(earlier).has(3) ? PREPARED : 0);
    else if (MODAL[key.mode]?.includes(above(before))) cadences += MODAL_CADENCE;
  });
  // A minor home has its dominant from outside the signature: nothing but it asks for that.
  const hasDominant = chords.some(
    ({ chord }) => isDominant(chord) && (intervals(chord).has(10) || key.mode === 'minor'),
  );
  // A loop that ends on its V is not at home there: a mode's home is come to by its cadence, or begun from.
  const isBorneOut = key.mode === 'major' || key.mode === 'minor' || cadences > 0 || isHome(chords[0]!.chord);
  return (
    (isHome(chords[0]!.chord) ? FIRST_CHORD : 0) +
    (isHome(chords.at(-1)!.chord) ? LAST_CHORD * closes * (isBorneOut ? 1 : ON_THE_WAY) : 0) +
    (time > 0 ? (SHARE_OF_TIME * atHome) / time : 0) +
    Math.min(CADENCES_AT_MOST, cadences) +
    (hasDominant ? OWN_DOMINANT : 0)
  );
}

/** What it speaks for a signature that its scale holds every tone of the chords. */
const IN_SCALE = 6;

/** The home of chords that stand under no signature, each counted alike: of every signature of at most six accidentals. */
export function homeOfChords(chords: readonly Chord[]): Key {
  const struck = chords.map((chord): Struck => ({ chord, duration: 1 }));
  const tones = chords.flatMap((chord) => chordTones(chord).map(pitchClass));
  const readings = Array.from({ length: 2 * MOST_ACCIDENTALS + 1 }, (_, i) => i - MOST_ACCIDENTALS).flatMap(
    (fifths) => {
      const scale = new Set(scaleFifths({ fifths, mode: 'major' }).map(pitchClass));
      const inside = tones.filter((pc) => scale.has(pc)).length / Math.max(1, tones.length);
      return MODES.map((mode): HomeReading => {
        const key: Key = { fifths, mode };
        return { key, weight: PRIOR[mode] + IN_SCALE * inside + byChords(struck, key, 1) };
      });
    },
  );
  // Of enharmonic twins the one with fewer accidentals, of those with as many the one with sharps.
  return readings.sort(
    (a, b) =>
      b.weight - a.weight || Math.abs(a.key.fifths) - Math.abs(b.key.fifths) || b.key.fifths - a.key.fifths,
  )[0]!.key;
}

/** What speaks for a home: notes. */
const CLOSES = 1;
const BEGINS = 0.5;
const BEGINS_ON_FIFTH = 0.3;
/** A single line says by its last note what its home is; there is no bass to ask. */
const LINE_CLOSES = 1.5;
/** A line that begins on a tonic and ends on its fifth has stopped on the way. */
const HALF_CLOSE = 0.5;
const LEADING_NOTE = 0.7;
const FIT = 3;
/** Share of all sounding time from which the raised seventh is no accident. */
const OFTEN = 0.01;

function byNotes(
  weights: readonly number[],
  total: number,
  { opening, closing, isLine }: Ends,
  key: Key,
  closes: number,
): number {
  const home = pitchClass(tonicFifths(key));
  const isRaised = weights[(home + 11) % 12]! / total > OFTEN;
  // Where the scale has a whole step below home, a raised note there is the minor key's; others have none.
  const leads = key.mode === 'major' || key.mode === 'lydian';
  const leading = leads
    ? 0
    : key.mode === 'minor'
      ? isRaised
        ? LEADING_NOTE
        : -LEADING_NOTE / 2
      : isRaised
        ? -LEADING_NOTE
        : 0;
  const isHalf =
    opening !== undefined && isLine && closing === (opening + 7) % 12 && opening === signatureTonic(key);
  return (
    (closing === home ? closes * (isHalf ? HALF_CLOSE : isLine ? LINE_CLOSES : CLOSES) : 0) +
    (opening === home ? BEGINS : isLine && opening === (home + 7) % 12 ? BEGINS_ON_FIFTH : 0) +
    leading +
    FIT * keyFit(weights, key)
  );
}

/** The tonic of the signature's major key, as a pitch class. */
const signatureTonic = (key: Key): number => pitchClass(tonicFifths({ fifths: key.fifths, mode: 'major' }));

interface Ends {
  readonly opening: number | undefined;
  readonly closing: number | undefined;
  readonly isLine: boolean;
}

/** What the music begins and closes on, as pitch classes. */
function endsOf(measures: readonly Measure[], line: readonly SoundingNote[]): Ends {
  const firstFull = measures.find((m) => m.beginsAt === 0) ?? measures[0]!;
  if (line.length === 0) return { opening: undefined, closing: undefined, isLine: false };
  // One line begins on its first full beat and closes on its last note.
  if (isOneLine(line))
    return {
      opening: (line.find((n) => n.onset >= firstFull.start) ?? line[0]!).midi % 12,
      closing: line.at(-1)!.midi % 12,
      isLine: true,
    };
  const lastOnset = line.at(-1)!.onset;
  const lowest = (list: readonly SoundingNote[]): number | undefined => {
    const low = list.reduce<SoundingNote | undefined>(
      (at, n) => (!at || n.midi < at.midi ? n : at),
      undefined,
    );
    return low && low.midi % 12;
  };
  // The lowest note of the last measure: in a broken chord the last note of all is not its bass.
  const lastFull = measures.findLast((m) => m.start <= lastOnset) ?? measures.at(-1)!;
  const last = line.filter((n) => n.onset + n.duration > lastFull.start && n.onset < endOf(lastFull));
  const end = Math.max(...last.map((n) => n.onset + n.duration));
  const atEnd = last.filter((n) => n.onset + n.duration === end);
  const [bass, bassAtEnd, top] = [lowest(last), lowest(atEnd), Math.max(...atEnd.map((n) => n.midi)) % 12];
  return {
    opening: lowest(line.filter((n) => n.onset >= firstFull.start && n.onset < endOf(firstFull))),
    // A close within the measure, V–I on its halves, ends on the bass that the highest note ends on.
    closing: top !== bass && top === bassAtEnd ? bassAtEnd : bass,
    isLine: false,
  };
}

/** Sounding time of each pitch class. */
export function weightsOf(notes: readonly SoundingNote[]): number[] {
  const weights = new Array<number>(12).fill(0);
  for (const note of notes) weights[note.midi % 12]! += note.duration;
  return weights;
}
