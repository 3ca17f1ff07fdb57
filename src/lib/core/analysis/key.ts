/**
 * The key as it sounds. Signatures rarely tell minor from major truthfully, so beginning, ending, leading note and the
 * whole of the notes are asked as well; passages in another key and a signature that the notes contradict are said.
 */
import { shownAccidentals } from '../score/accidentals';
import { endOf } from '../score/metre';
import { byMeasure, isOneLine, soundingNotes, type SoundingNote } from '../score/query';
import type { Score } from '../score/score';
import { pitchClass } from '../theory/fifths';
import { tonicFifths, type Key } from '../theory/key';
import type { Mode } from '../theory/modes';
import { keyFit, keyFromProfile } from './keyProfile';

/** The main key: the first signature, in the mode that the notes speak for. */
export function keyOf(score: Score): Key {
  const first = score.measures[0]!.key;
  if (first.mode !== 'major') return first;
  const mode = modeHeard(score, first.fifths);
  if (mode) return { fifths: first.fifths, mode };
  const minor: Key = { fifths: score.measures.at(-1)!.key.fifths, mode: 'minor' };
  return evidenceForMinor(score, first, minor) > 0 ? { fifths: first.fifths, mode: 'minor' } : first;
}

/** Modes that are heard where a signature does not name them: the usual ones of dances and songs. */
const HEARD_MODES: readonly Mode[] = ['dorian', 'mixolydian', 'phrygian', 'lydian'];
/** By how much home and its fifth must outweigh those of the major key; the minor key's share a note with most. */
const OUTWEIGHS = 1.1;

/**
 * The mode of music whose signature says nothing of one: it begins and closes on the home of that mode, and rests on it and
 * its fifth more than on those of the major and minor key of the same signature.
 */
function modeHeard(score: Score, fifths: number): Mode | undefined {
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes));
  const chords = score.chordSymbols.flatMap((s) => (s.chord ? [pitchClass(s.chord.root)] : []));
  if (notes.length === 0) return undefined;
  const { opening, closing } = endsOf(score, notes, chords);
  const weights = weightsOf(notes);
  const rests = (mode: Mode): number => {
    const home = pitchClass(tonicFifths({ fifths, mode }));
    return weights[home]! + weights[(home + 7) % 12]!;
  };
  return HEARD_MODES.find((mode) => {
    const home = pitchClass(tonicFifths({ fifths, mode }));
    const begins = opening !== undefined && [home, (home + 7) % 12].includes(opening % 12);
    return (
      closing !== undefined &&
      closing % 12 === home &&
      begins &&
      rests(mode) > OUTWEIGHS * rests('major') &&
      rests(mode) > rests('minor')
    );
  });
}

/** How much more each sign counts than the fit of all the notes. */
const CLOSES = 1;
const BEGINS = 0.5;
const LEADING_NOTE = 0.7;
const FIT = 3;
/** Share of all sounding time from which the raised seventh is no accident. */
const OFTEN = 0.01;

/** Positive where the relative minor is likelier than the major; chords named by the source decide where they can. */
function evidenceForMinor(score: Score, major: Key, minor: Key): number {
  const tonicOf = (key: Key): number => pitchClass(tonicFifths(key));
  const chords = score.chordSymbols.flatMap((s) => (s.chord ? [pitchClass(s.chord.root)] : []));
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes));
  const { opening, closing } = endsOf(score, notes, chords);
  const sign = (pc: number | undefined, weight: number): number =>
    pc === undefined ? 0 : pc % 12 === tonicOf(minor) ? weight : pc % 12 === tonicOf(major) ? -weight : 0;
  const weights = weightsOf(notes);
  const total = weights.reduce((a, b) => a + b, 0);
  const leading = total > 0 && weights[(tonicOf(minor) + 11) % 12]! / total > OFTEN;
  return (
    sign(closing, CLOSES) +
    sign(opening, BEGINS) +
    (leading ? LEADING_NOTE : -LEADING_NOTE / 2) +
    (total > 0 ? FIT * (keyFit(weights, minor) - keyFit(weights, major)) : 0)
  );
}

/** What the music begins and closes on, as pitch classes or MIDI numbers: chords named by the source where it has them. */
function endsOf(
  score: Score,
  notes: readonly SoundingNote[],
  chords: readonly number[],
): { opening: number | undefined; closing: number | undefined } {
  const firstFull = score.measures.find((m) => m.beginsAt === 0) ?? score.measures[0]!;
  // One line begins on its first full beat and closes on its last note.
  const line = [...notes].sort((a, b) => a.onset - b.onset);
  if (chords.length === 0 && isOneLine(line))
    return {
      opening: (line.find((n) => n.onset >= firstFull.start) ?? line[0]!).midi,
      closing: line.at(-1)!.midi,
    };
  const lastOnset = notes.reduce((latest, n) => Math.max(latest, n.onset), 0);
  const lowest = (list: readonly SoundingNote[]): number | undefined =>
    list.reduce<SoundingNote | undefined>((low, n) => (!low || n.midi < low.midi ? n : low), undefined)?.midi;
  // The lowest note of the last measure: in a broken chord the last note of all is not its bass.
  const lastFull = score.measures.findLast((m) => m.start <= lastOnset) ?? score.measures.at(-1)!;
  const closing = chords.at(-1) ?? lowest(notes.filter((n) => n.onset + n.duration > lastFull.start));
  const opening =
    chords[0] ?? lowest(notes.filter((n) => n.onset >= firstFull.start && n.onset < endOf(firstFull)));
  return { opening, closing };
}

/** Sounding time of each pitch class. */
function weightsOf(notes: readonly SoundingNote[]): number[] {
  const weights = new Array<number>(12).fill(0);
  for (const note of notes) weights[note.midi % 12]! += note.duration;
  return weights;
}

/** The score with the mode that was heard written into its measures. */
export function withHeardMode(score: Score): Score {
  const { mode } = keyOf(score);
  return mode === 'major'
    ? score
    : {
        ...score,
        measures: score.measures.map((m) => ({
          ...m,
          key: { ...m.key, mode },
          ...(m.changes
            ? { changes: m.changes.map((c) => (c.key ? { ...c, key: { ...c.key, mode } } : c)) }
            : {}),
        })),
      };
}

export interface KeyPassage {
  /** First and last measure, by index. */
  readonly from: number;
  readonly to: number;
  readonly key: Key;
}

export interface KeyReport {
  readonly key: Key;
  /** Passages of some length that stand in another key than the piece. */
  readonly passages: readonly KeyPassage[];
  /** The key of which the notes speak, where the signature says otherwise. */
  readonly heard?: Key;
}

/** By how much another key must fit all the notes better before the signature is doubted. */
const DOUBT = 0.12;
/** What a change of key costs, in measures that fit perfectly. */
const MODULATION = 1.4;
/** Measures around each that are listened to with it. */
const AROUND = 1;
const SHORTEST_PASSAGE = 4;

/** The key of the whole and of its passages. */
export function keyReport(score: Score): KeyReport {
  const key = keyOf(score);
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes));
  const heard = heardKey(notes, key);
  return {
    key,
    passages: passagesOf(score, notes, heard ?? key),
    ...(heard ? { heard } : {}),
  };
}

/** The key of which all the notes speak, where that is not the one of the signature. */
function heardKey(notes: readonly SoundingNote[], key: Key): Key | undefined {
  if (notes.length === 0) return undefined;
  const weights = weightsOf(notes);
  const heard = keyFromProfile(weights);
  const doubted =
    heard.fifths !== key.fifths &&
    keyFit(weights, heard) - Math.max(...bothModes(key.fifths).map((k) => keyFit(weights, k))) > DOUBT;
  return doubted ? heard : undefined;
}

/**
 * The score with the signature of which its notes speak, where its own makes more accidentals necessary than that: what a teacher
 * writes for a learner. A score that changes its key is left alone. `key` is the key that then holds.
 */
export function withHeardSignature(score: Score): { readonly score: Score; readonly key: Key } | undefined {
  const { fifths } = score.measures[0]!.key;
  if (score.measures.some((m) => m.changes?.some((c) => c.key) || m.key.fifths !== fifths)) return undefined;
  const heard = heardKey(
    score.parts.flatMap((p) => soundingNotes(p.notes)),
    score.measures[0]!.key,
  );
  if (!heard) return undefined;
  const written = { ...score, measures: score.measures.map((m) => ({ ...m, key: heard })) };
  return accidentalsIn(written) < accidentalsIn(score) ? { score: written, key: heard } : undefined;
}

/** How many accidentals stand before the notes of a score. */
const accidentalsIn = ({ parts, measures }: Score): number =>
  parts.reduce((sum, part) => {
    const inMeasures = byMeasure(measures, part.notes);
    return sum + measures.reduce((own, m, i) => own + shownAccidentals(m, inMeasures[i]!).size, 0);
  }, 0);

const bothModes = (fifths: number): Key[] => [
  { fifths, mode: 'major' },
  { fifths, mode: 'minor' },
];

const ALL_KEYS: readonly Key[] = Array.from({ length: 13 }, (_, i) => bothModes(i - 6)).flat();

/** Keys measure by measure, as the best path that changes seldom; neighbours in the same key are joined. */
function passagesOf(score: Score, notes: readonly SoundingNote[], main: Key): KeyPassage[] {
  const weightsByMeasure = byMeasure(score.measures, notes).map(weightsOf);
  const windows = weightsByMeasure.map((_, i) =>
    weightsByMeasure
      .slice(Math.max(0, i - AROUND), i + AROUND + 1)
      .reduce((sum, w) => sum.map((v, pc) => v + w[pc]!)),
  );
  let costs = ALL_KEYS.map((k): number => (sameKey(k, main) ? 0 : MODULATION));
  const back: number[][] = [];
  windows.forEach((weights, i) => {
    const silent = weights.every((w) => w === 0);
    const least = costs.reduce((best, cost, k) => (cost < costs[best]! ? k : best), 0);
    const from: number[] = [];
    costs = ALL_KEYS.map((key, k) => {
      const stays = costs[k]!;
      const moves = costs[least]! + MODULATION;
      from[k] = stays <= moves ? k : least;
      // The signature in force and the main key have the benefit of the doubt.
      const written = score.measures[i]!.key.fifths === key.fifths ? 0.12 : 0;
      const home = sameKey(key, main) ? 0.08 : 0;
      return Math.min(stays, moves) + (silent ? 0 : 1 - keyFit(weights, key) - written - home);
    });
    back.push(from);
  });
  let at = costs.reduce((best, cost, k) => (cost < costs[best]! ? k : best), 0);
  const path: number[] = [];
  for (let i = windows.length - 1; i >= 0; i--) {
    path[i] = at;
    at = back[i]![at]!;
  }
  const passages: KeyPassage[] = [];
  path.forEach((k, i) => {
    const last = passages.at(-1);
    if (last && sameKey(last.key, ALL_KEYS[k]!)) passages[passages.length - 1] = { ...last, to: i };
    else passages.push({ from: i, to: i, key: ALL_KEYS[k]! });
  });
  return passages.filter((p) => !sameKey(p.key, main) && p.to - p.from + 1 >= SHORTEST_PASSAGE);
}

const sameKey = (a: Key, b: Key): boolean => a.fifths === b.fifths && a.mode === b.mode;
