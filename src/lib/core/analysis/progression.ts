/**
 * The chords of a piece as a musician says them: degrees of the home key, one after another ("6 4 1 5"), by which a piece is found, and the loop
 * that goes round in it.
 */
import { degreeOfRoot, sameChord, type Chord } from '../theory/chord';
import type { Key } from '../theory/key';
import type { ChordSpan } from './harmony';

/** Longest and shortest loop, in chords; and how often it goes round at least. */
const [LONGEST, SHORTEST, ROUNDS] = [8, 3, 2];
/** Fewest degrees that are a progression where somebody looks for one. */
const FEWEST = 3;

const ROMAN: Readonly<Record<string, string>> = {
  i: '1',
  ii: '2',
  iii: '3',
  iv: '4',
  v: '5',
  vi: '6',
  vii: '7',
};

/** The degrees of a piece's chords in order, each said once while it stays: "6", "4", "♭7". */
export function progressionOf(chords: readonly ChordSpan[], key: Key): readonly string[] {
  const degrees: string[] = [];
  let before: Chord | null = null;
  for (const { chord } of chords) {
    if (!chord || sameChord(before, chord)) continue;
    before = chord;
    const degree = degreeOfRoot(chord, key);
    if (degrees.at(-1) !== degree) degrees.push(degree);
  }
  return degrees;
}

/** What is looked for as a progression: "6 4 1 5", "6415", "vi IV I V"; undefined where it is none. */
export function progressionIn(text: string): readonly string[] | undefined {
  const written = text.trim().replaceAll('-', ' ').replaceAll('–', ' ');
  const words = /^[1-7]{3,8}$/.test(written) ? [...written] : written.split(/[\s,|]+/).filter(Boolean);
  const degrees = words.map((word): string | undefined => {
    const [, sign = '', name = ''] = /^([b♭#♯]?)([1-7]|[ivIV]{1,3})[m7°]*$/.exec(word) ?? [];
    const number = /^[1-7]$/.test(name) ? name : ROMAN[name.toLowerCase()];
    return number && `${sign.replace('b', '♭').replace('#', '♯')}${number}`;
  });
  const known = degrees.filter((degree) => degree !== undefined);
  return known.length === degrees.length && known.length >= FEWEST ? known : undefined;
}

/** Whether degrees follow one another somewhere in a progression. */
export const hasProgression = (progression: readonly string[], wanted: readonly string[]): boolean =>
  progression.some((_, at) => wanted.every((degree, i) => progression[at + i] === degree));

/**
 * The loop that covers most of a progression: a few degrees that go round at least twice on end, begun where it begins first. Undefined
 * where nothing goes round.
 */
export function loopOf(progression: readonly string[]): readonly string[] | undefined {
  let best: { readonly loop: readonly string[]; readonly covers: number } | undefined;
  for (let length = SHORTEST; length <= LONGEST; length++) {
    for (let at = 0; at + length * ROUNDS <= progression.length; at++) {
      let goes = length;
      while (at + goes < progression.length && progression[at + goes] === progression[at + goes - length])
        goes++;
      const covers = goes - (goes % length);
      if (covers < length * ROUNDS || (best && covers <= best.covers)) continue;
      best = { loop: progression.slice(at, at + length), covers };
    }
  }
  return best?.loop;
}

/** A loop by whichever chord it is begun with: two pieces share one where these are the same. */
export function loopName(loop: readonly string[]): string {
  const turned = loop.map((_, i) => [...loop.slice(i), ...loop.slice(0, i)].join(' '));
  return turned.sort()[0] ?? '';
}
