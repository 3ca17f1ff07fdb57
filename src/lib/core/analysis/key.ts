/** Keys through a piece: what is heard under each of its signatures, and passages in another key. Where the piece is at home says home.ts. */
import { capital } from '../capital';
import { endOf } from '../score/metre';
import { byMeasure, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Score } from '../score/score';
import { pitchClass } from '../theory/fifths';
import { keyName, scaleFifths, tonicFifths, type Key } from '../theory/key';
import { contradictedKey, keyOf, keyUnder, otherHome, weightsOf } from './home';
import { bothModes, keyFit } from './keyProfile';

/** Stretches of measures under one signature, in order. */
function signatureRegions({ measures }: Score): (readonly Measure[])[] {
  const regions: Measure[][] = [];
  for (const m of measures) {
    const last = regions.at(-1);
    if (last && sameKey(last[0]!.key, m.key)) last.push(m);
    else regions.push([m]);
  }
  return regions;
}

/** The score with the keys that were heard written into its measures: the home under the first signature, under others their own. */
export function withHeardMode(score: Score): Score {
  const home = keyOf(score);
  const first = score.measures[0]!.key;
  const keys = new Map(
    signatureRegions(score).flatMap((region) => {
      const key = sameKey(region[0]!.key, first) ? home : keyUnder(score, region, home);
      return region.map((m) => [m.index, key] as const);
    }),
  );
  if (score.measures.every((m) => sameKey(keys.get(m.index)!, m.key))) return score;
  return {
    ...score,
    measures: score.measures.map((m) => {
      const key = keys.get(m.index)!;
      return {
        ...m,
        key,
        ...(m.changes
          ? {
              changes: m.changes.map((c) =>
                c.key?.mode === 'major' && m.key.mode === 'major'
                  ? { ...c, key: { ...c.key, mode: key.mode } }
                  : c,
              ),
            }
          : {}),
      };
    }),
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
  /** What the home could be as well, where that is near. */
  readonly other?: Key;
  /** Passages of some length that stand in another key than the piece. */
  readonly passages: readonly KeyPassage[];
  /** The key that the signature names, where the notes contradict it. */
  readonly signed?: Key;
}

/** What a change of key costs, in measures that fit perfectly. */
const MODULATION = 0.9;
/** What a measure costs in another key of the same signature: nothing but the closes tells them apart. */
const RELATIVE = 0.1;
/** Measures around each that are listened to with it. */
const AROUND = 1;
const SHORTEST_PASSAGE = 4;

/** The key of the whole and of its passages. */
export function keyReport(score: Score): KeyReport {
  const key = keyOf(score);
  const notes = score.parts.flatMap((p) => soundingNotes(p.notes));
  const signed = contradictedKey(score);
  const other = otherHome(score);
  return {
    key,
    passages: passagesIn(score, notes, key),
    ...(other ? { other } : {}),
    ...(signed ? { signed } : {}),
  };
}

/** What is said of a signature that the notes contradict. `signed` is the key it names, `keyText` the name of the key that counts. */
export const signedText = (signed: Key, keyText: string): string =>
  `The key signature is for ${keyName(signed)}, but the notes are in ${keyText}. ${capital(keyText)} is used everywhere.`;

const ALL_KEYS: readonly Key[] = Array.from({ length: 13 }, (_, i) => bothModes(i - 6)).flat();

/** Passages in another key: a change of signature is one, with its borders; under one signature they are heard. */
function passagesIn(score: Score, notes: readonly SoundingNote[], main: Key): KeyPassage[] {
  const regions = signatureRegions(score);
  if (regions.length === 1) return passagesOf(score, notes, main);
  const first = score.measures[0]!.key;
  const inside = passagesOf(score, notes, main);
  return regions.flatMap((region): KeyPassage[] => {
    const [from, to] = [region[0]!.index, region.at(-1)!.index];
    const isFirst = sameKey(region[0]!.key, first);
    const key = isFirst ? main : keyUnder(score, region, main);
    const own: KeyPassage[] = isFirst ? [] : [{ from, to, key }];
    // What is heard within it besides, cut at its borders.
    const heard = inside
      .map((p) => ({ ...p, from: Math.max(from, p.from), to: Math.min(to, p.to) }))
      .filter(
        (p) => p.to - p.from + 1 >= SHORTEST_PASSAGE && !sameKey(p.key, key) && p.to - p.from < to - from,
      );
    return isFirst ? heard : own;
  });
}

/**
 * The keys that a passage can be in. A mode has the notes of its whole signature, and where the teacher has said the home its
 * notes are not asked again: other keys of that signature are then none.
 */
function candidatesFor({ home }: Score, main: Key): readonly Key[] {
  const isPlain = main.mode === 'major' || main.mode === 'minor';
  const others =
    isPlain && !home ? ALL_KEYS : [main, ...ALL_KEYS.filter((key) => key.fifths !== main.fifths)];
  // Of enharmonic twins the nearer one: a passage after three sharps is in F sharp.
  const distance = ({ fifths }: Key): number => Math.abs(fifths - main.fifths);
  return [...others].sort((a, b) => distance(a) - distance(b));
}

/** Share of what sounds from which notes outside a signature are more than ornaments of it. */
const ORNAMENTS = 0.03;

/** How far notes keep to a signature: 1 where all do, 0 where those outside it are a tenth of what sounds or more. A raised leading note is minor's. */
function shareKept(weights: readonly number[], { fifths, mode }: Key): number {
  const scale = new Set(scaleFifths({ fifths, mode: 'major' }).map(pitchClass));
  if (mode === 'minor') scale.add(pitchClass(fifths + RAISED_SEVENTH));
  const total = weights.reduce((a, b) => a + b, 0);
  const outside = weights.reduce((sum, w, pc) => sum + (scale.has(pc) ? 0 : w), 0);
  const share = total > 0 ? outside / total : 0;
  return Math.max(0, Math.min(1, (0.1 - share) / (0.1 - ORNAMENTS)));
}

/** The raised seventh of minor, on the line of fifths from its signature. */
const RAISED_SEVENTH = 8;

/** Keys measure by measure, as the best path that changes seldom; neighbours in the same key are joined. */
function passagesOf(score: Score, notes: readonly SoundingNote[], main: Key): KeyPassage[] {
  const weightsByMeasure = byMeasure(score.measures, notes).map(weightsOf);
  const windows = weightsByMeasure.map((_, i) =>
    weightsByMeasure
      .slice(Math.max(0, i - AROUND), i + AROUND + 1)
      .reduce((sum, w) => sum.map((v, pc) => v + w[pc]!)),
  );
  const keys = candidatesFor(score, main);
  const kept = windows.map((weights, i) => shareKept(weights, score.measures[i]!.key));
  const isRelative = keys.map((key) => key.fifths === main.fifths && !sameKey(key, main));
  let costs = keys.map((k): number => (sameKey(k, main) ? 0 : MODULATION));
  const back: number[][] = [];
  windows.forEach((weights, i) => {
    const silent = weights.every((w) => w === 0);
    const least = costs.reduce((best, cost, k) => (cost < costs[best]! ? k : best), 0);
    const from: number[] = [];
    costs = keys.map((key, k) => {
      const stays = costs[k]!;
      const moves = costs[least]! + MODULATION;
      from[k] = stays <= moves ? k : least;
      // The signature in force and the main key have the benefit of the doubt, as far as the notes keep to them.
      const written = score.measures[i]!.key.fifths === key.fifths ? 0.12 * kept[i]! : 0;
      const home = sameKey(key, main) ? 0.08 * kept[i]! : 0;
      const relative = isRelative[k] ? RELATIVE : 0;
      return Math.min(stays, moves) + (silent ? 0 : 1 - keyFit(weights, key) - written - home + relative);
    });
    back.push(from);
  });
  // A piece comes home: to end elsewhere costs another change.
  costs = costs.map((cost, k) => cost + (sameKey(keys[k]!, main) ? 0 : MODULATION));
  let at = costs.reduce((best, cost, k) => (cost < costs[best]! ? k : best), 0);
  const path: number[] = [];
  for (let i = windows.length - 1; i >= 0; i--) {
    path[i] = at;
    at = back[i]![at]!;
  }
  const passages: KeyPassage[] = [];
  path.forEach((k, i) => {
    const last = passages.at(-1);
    if (last && sameKey(last.key, keys[k]!)) passages[passages.length - 1] = { ...last, to: i };
    else passages.push({ from: i, to: i, key: keys[k]! });
  });
  return passages.filter(
    (p) => !sameKey(p.key, main) && p.to - p.from + 1 >= SHORTEST_PASSAGE && comesHome(score, p),
  );
}

/** Whether the written chords of a passage have its tonic; where none are written its notes alone have said it. */
function comesHome({ measures, chordSymbols }: Score, { from, to, key }: KeyPassage): boolean {
  const [start, end] = [measures[from]!.start, endOf(measures[to]!)];
  const inside = chordSymbols.flatMap(({ onset, chord }) =>
    chord && onset >= start && onset < end ? [chord] : [],
  );
  const home = pitchClass(tonicFifths(key));
  return inside.length === 0 || inside.some((c) => pitchClass(c.root) === home && c.kind !== 'dominant7');
}

const sameKey = (a: Key, b: Key): boolean => a.fifths === b.fifths && a.mode === b.mode;
