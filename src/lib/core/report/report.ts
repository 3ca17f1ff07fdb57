/**
 * All that is known of a piece before anyone plays it, as one plain record: what the page of a piece shows and links into
 * the music. Measures are given by index; words for people are made where they are shown.
 */
import { difficultyOf, type MeasureDifficulty } from '../difficulty/difficulty';
import { LEVELS } from '../arrange/levels';
import { hardestOf, levelOf, scoreOfWhole } from '../difficulty/level';
import { beatLength, endOf } from '../score/metre';
import { pitchClassName } from '../theory/pitch';
import type { HandProposal, HandReach } from '../hands/assign';
import { playablePart, type PlayablePart } from '../hands/playable';
import { muddyChords, type MuddyChord } from '../hands/muddy';
import type { WideChord } from '../hands/wide';
import { keyboardPart, measureAt } from '../score/query';
import type { Score, TimeSignature } from '../score/score';
import {
  bassOf,
  chordSymbol,
  chordToneNames,
  chordTones,
  degree,
  inversion,
  isDiatonic,
  numberDegree,
  type Chord,
} from '../theory/chord';
import { fromFifths, pitchClass } from '../theory/fifths';
import { keyCode, keyName, scaleFifths, signatureNames, tonicFifths, type Key } from '../theory/key';
import { disagreements, type Disagreement } from '../analysis/disagreements';
import { formOf, type Form } from '../analysis/form';
import { chordsOf, type ChordSpan } from '../analysis/harmony';
import { idiomOf, type SeenIdiom } from '../analysis/idiom';
import { keyOf } from '../analysis/home';
import { keyReport, withHeardMode, type KeyReport } from '../analysis/key';
import { commonTones, shapesOf, type SymbolShapes } from '../analysis/shapes';

/** One chord where it stands. */
export interface ChordInPlace {
  readonly measure: number;
  /** Beat of its measure, from 1; a fraction between beats. */
  readonly beat: number;
  readonly symbol: string;
  readonly degree: string;
  readonly number: string;
  readonly isBorrowed: boolean;
  /** What would do as well where the chord is proposed for a bare tune. */
  readonly alternatives: readonly string[];
  readonly chord: Chord;
  /** Tones, by name, that it shares with the chord before and that it has instead of it; empty for the first. */
  readonly stay: readonly string[];
  readonly move: readonly string[];
}

/** One chord of the piece's vocabulary. */
export interface ChordOfPiece {
  readonly symbol: string;
  readonly degree: string;
  readonly number: string;
  /** Names of its tones, root first. */
  readonly tones: readonly string[];
  /** Keys of a close shape around middle C, the bass lowest, as MIDI numbers. */
  readonly keys: readonly number[];
  /** 0 root in the bass, 1 the third and so on, −1 a bass outside the chord. */
  readonly inversion: number;
  readonly bass: string;
  readonly isBorrowed: boolean;
  /** Measures in which it begins. */
  readonly measures: readonly number[];
}

export interface PieceReport {
  readonly key: Key;
  readonly keyName: string;
  /** The first chords as degrees of the home, and what it could be as well with the same chords from there. */
  readonly home: HomeLine;
  readonly otherHome: HomeLine | null;
  readonly signature: readonly string[];
  readonly scale: readonly string[];
  readonly time: TimeSignature;
  /** Quarters a minute; 0 where the source names none. */
  readonly tempo: number;
  readonly hasPickup: boolean;
  /** The key the notes speak for, where the signature says otherwise, and passages in other keys. */
  readonly keys: KeyReport;
  readonly form: Form;
  readonly chordsFrom: ChordSpan['from'];
  /** What kind of music it is, and by what that is seen. */
  readonly idiom: SeenIdiom;
  /** The first chord, where it is not the home chord. */
  readonly startsOn: { readonly symbol: string; readonly isBorrowed: boolean } | null;
  /** Every chord in its place, in order of time. */
  readonly progression: readonly ChordInPlace[];
  /** For each section the chords that sound in it; one that goes on from the section before is its first. */
  readonly chords: readonly (readonly ChordInPlace[])[];
  /** Every chord once, in the order in which they come. */
  readonly vocabulary: readonly ChordOfPiece[];
  readonly shapes: readonly SymbolShapes[];
  readonly disagreements: readonly Disagreement[];
  /** Notes that the staves give to one hand and the other should play, and chords that no hand of the reach holds. */
  readonly hands: readonly HandProposal[];
  readonly wide: readonly WideChord[];
  /** Chords that blur because they lie close and low, and what is clearer. */
  readonly muddy: readonly MuddyChord[];
  readonly difficulty: readonly MeasureDifficulty[];
  readonly hardest: readonly HardSpot[];
  /** Of the whole: 0 to 100, and 1 to 6. */
  readonly difficultyScore: number;
  readonly level: number;
}

/** A hard measure, and where it comes again note for note. */
export interface HardSpot extends MeasureDifficulty {
  readonly again: readonly number[];
}

/** A home, and the first chords as numbers from there: "6 4 1 5". */
export interface HomeLine {
  readonly code: string;
  readonly name: string;
  readonly numbers: string;
}

/** Stages of the analysis, with the share of the work that is done when each begins. */
export const STAGES = [
  ['keys', 0],
  ['chords', 0.15],
  ['form', 0.6],
  ['difficulty', 0.85],
] as const;

export type Stage = (typeof STAGES)[number][0];

/** A hand that holds an octave, in semitones. */
const OCTAVE: HandReach = { right: 12, left: 12 };

/** Analyses a piece. `onStage` is told which stage begins; `reach` is that of the hands which are to play it. */
export function reportOf(
  source: Score,
  onStage: (stage: Stage) => void = () => undefined,
  reach: HandReach = OCTAVE,
): PieceReport {
  onStage('keys');
  const score = withHeardMode(source);
  const key = keyOf(score);
  const keys = keyReport(source);
  onStage('chords');
  const all = chordsOf(score);
  const spans = all.filter((s): s is Named => s.chord !== null);
  onStage('form');
  const form = formOf(score);
  onStage('difficulty');
  const difficulty = difficultyOf(score);
  const { proposals, wide } =
    score.parts.length > 0 ? playablePart(keyboardPart(score), score.measures, reach) : NOTHING;
  const whole = scoreOfWhole(difficulty);
  const first = spans[0]?.chord;
  const localKey = localKeys(score, keys);
  const placed = spans.map((span, i) => inPlace(score, span, spans[i - 1], spans[i + 1], localKey));
  return {
    key,
    keyName: keyName(key),
    home: homeLine(key, spans),
    otherHome: keys.other ? homeLine(keys.other, spans) : null,
    signature: signatureNames(key),
    scale: scaleFifths(key).map((f) => pitchClassName(fromFifths(f))),
    time: score.measures[0]!.time,
    tempo: score.tempo,
    hasPickup: score.measures[0]!.beginsAt > 0,
    keys,
    form,
    chordsFrom: spans[0]?.from ?? 'notes',
    idiom: idiomOf(source),
    startsOn:
      first && first.root !== tonicFifths(key)
        ? { symbol: chordSymbol(first), isBorrowed: !isDiatonic(first, key) }
        : null,
    progression: placed,
    chords: bySection(score, form, spans, placed),
    vocabulary: vocabularyOf(spans, placed, localKey),
    shapes: shapesOf(score, all),
    disagreements: disagreements(score, all),
    hands: proposals,
    wide,
    muddy: score.parts.length > 0 ? muddyChords(keyboardPart(score), score.measures) : [],
    difficulty,
    hardest: hardSpots(difficulty, form),
    difficultyScore: whole,
    level: Math.max(levelOf(whole), levelReading(score)),
  };
}

/** The hardest measures, each said once. */
const hardSpots = (difficulty: readonly MeasureDifficulty[], { firstSeen }: Form): HardSpot[] =>
  hardestOf(difficulty, (measure) => firstSeen[measure] === measure).map((spot) => ({
    ...spot,
    again: firstSeen.flatMap((first, i) => (first === spot.measure && i !== first ? [i] : [])),
  }));

/** Chords that show how a home counts. */
const SHOWN_CHORDS = 4;

const homeLine = (key: Key, spans: readonly Named[]): HomeLine => ({
  code: keyCode(key),
  name: keyName(key),
  numbers: spans
    .slice(0, SHOWN_CHORDS)
    .map(({ chord }) => numberDegree(chord, key))
    .join(' '),
});

const NOTHING: Pick<PlayablePart, 'proposals' | 'wide'> = { proposals: [], wide: [] };

/** The first level that reads every key signature of a piece: a slow melody in six sharps is no beginner's. */
function levelReading({ measures }: Score): number {
  const most = Math.max(...measures.map((m) => Math.abs(m.key.fifths)));
  return (
    LEVELS.find(({ accidentals }) => accidentals === null || accidentals >= most)?.level ?? LEVELS.length
  );
}

type Named = ChordSpan & { readonly chord: Chord };

/** The key that holds in each measure: of the passage, else of the signature there. */
function localKeys(score: Score, { passages }: KeyReport): (measure: number) => Key {
  const byMeasure = score.measures.map(
    (m) => passages.find((p) => p.from <= m.index && m.index <= p.to)?.key ?? m.key,
  );
  return (measure) => byMeasure[measure]!;
}

function inPlace(
  score: Score,
  { chord, onset, alternatives = [] }: Named,
  before: Named | undefined,
  after: Named | undefined,
  keyIn: (measure: number) => Key,
): ChordInPlace {
  const measure = measureAt(score.measures, onset);
  const key = keyIn(measure.index);
  const { stay, move } = before ? commonTones(before.chord, chord) : { stay: [], move: [] };
  return {
    measure: measure.index,
    beat: 1 + (onset - measure.start + measure.beginsAt) / beatLength(measure.time),
    symbol: chordSymbol(chord),
    degree: degree(chord, key, after?.chord),
    number: numberDegree(chord, key),
    isBorrowed: !isDiatonic(chord, key),
    alternatives: alternatives.map(chordSymbol),
    chord,
    stay,
    move,
  };
}

/** The chords that sound in each section; both come in order of time, so one walk finds them all. */
function bySection(
  { measures }: Score,
  { sections }: Form,
  spans: readonly Named[],
  placed: readonly ChordInPlace[],
): ChordInPlace[][] {
  let first = 0;
  return sections.map(({ from, to }) => {
    const [start, end] = [measures[from]!.start, endOf(measures[to]!)];
    while (first < spans.length && spans[first]!.onset + spans[first]!.duration <= start) first += 1;
    const own: ChordInPlace[] = [];
    for (let i = first; i < spans.length && spans[i]!.onset < end; i++) own.push(placed[i]!);
    return own;
  });
}

function vocabularyOf(
  spans: readonly Named[],
  placed: readonly ChordInPlace[],
  keyIn: (measure: number) => Key,
): ChordOfPiece[] {
  const bySymbol = new Map<string, { chord: Chord; measures: Set<number> }>();
  spans.forEach(({ chord }, i) => {
    const { symbol, measure } = placed[i]!;
    const known = bySymbol.get(symbol);
    if (known) known.measures.add(measure);
    else bySymbol.set(symbol, { chord, measures: new Set([measure]) });
  });
  return [...bySymbol].map(([symbol, { chord, measures }]) => {
    const key = keyIn([...measures][0]!);
    return {
      symbol,
      degree: degree(chord, key),
      number: numberDegree(chord, key),
      tones: chordToneNames(chord).split(' '),
      keys: closeShape(chord),
      inversion: inversion(chord),
      bass: pitchClassName(fromFifths(bassOf(chord))),
      isBorrowed: !isDiatonic(chord, key),
      measures: [...measures],
    };
  });
}

/** Lowest key of a chord's picture: the G below middle C, so that close shapes lie around it. */
const LOWEST_SHOWN = 55;

/** The chord's keys in close position, each tone above the one before, the bass lowest. */
function closeShape(chord: Chord): number[] {
  const tones = chordTones(chord).map(pitchClass);
  const bass = pitchClass(bassOf(chord));
  const at = tones.indexOf(bass);
  // A bass outside the chord goes below it; an inversion goes round.
  const order = at < 0 ? [bass, ...tones] : [...tones.slice(at), ...tones.slice(0, at)];
  const keys: number[] = [];
  for (const tone of order) {
    const above = keys.at(-1) ?? LOWEST_SHOWN - 1;
    keys.push(above + 1 + ((((tone - above - 1) % 12) + 12) % 12));
  }
  return keys;
}
