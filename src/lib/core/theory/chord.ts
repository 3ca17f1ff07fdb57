import { accidentalText } from './pitch';
import { CHORD_KINDS, type ChordKind, type ChordKindId } from './chordKinds';
import { fromFifths, pitchClass, type Fifths } from './fifths';
import { scaleFifths, tonicFifths, type Key } from './key';

/** A chord by its spelled root and kind; `bass` only where it is not the root. Places are on the line of fifths. */
export interface Chord {
  readonly root: Fifths;
  readonly kind: ChordKindId;
  readonly bass?: Fifths;
  /** What is added to the kind, altered in it or left out of it: ♭9, ♯11, no 3. */
  readonly altered?: readonly ChordAlteration[];
}

/** `degree` counts from the root (1 to 13), `alter` in semitones; an added seventh of alter 0 is the minor one. */
export interface ChordAlteration {
  readonly type: 'add' | 'alter' | 'leave out';
  readonly degree: number;
  readonly alter: number;
}

const kindOf = (chord: Chord): ChordKind => CHORD_KINDS[chord.kind];

/** Places of the unaltered degrees on the line of fifths, from the root. */
const DEGREES: Readonly<Record<number, Fifths>> = {
  1: 0,
  2: 2,
  3: 4,
  4: -1,
  5: 1,
  6: 3,
  7: -2,
  8: 0,
  9: 2,
  10: 4,
  11: -1,
  12: 1,
  13: 3,
};

/** Degrees an octave apart share a letter: 9 and 2. */
const sameLetter = (tone: Fifths, degree: number): boolean => (tone - DEGREES[degree]!) % 7 === 0;

/** Spelled chord tones, root first. */
export function chordTones(chord: Chord): Fifths[] {
  let tones: Fifths[] = [...kindOf(chord).tones];
  for (const { type, degree, alter } of chord.altered ?? []) {
    if (DEGREES[degree] === undefined) continue;
    const tone = DEGREES[degree] + 7 * alter;
    if (type === 'leave out') tones = tones.filter((t) => !sameLetter(t, degree));
    else if (type === 'alter' && tones.some((t) => sameLetter(t, degree)))
      tones = tones.map((t) => (sameLetter(t, degree) ? tone : t));
    else if (!tones.includes(tone)) tones.push(tone);
  }
  return tones.map((tone) => chord.root + tone);
}

/** The tone that must sound lowest: the named bass, else the root. */
export const bassOf = (chord: Chord): Fifths => chord.bass ?? chord.root;

const tpcName = (fifths: Fifths): string => {
  const { step, alter } = fromFifths(fifths);
  return step + accidentalText(alter);
};

/** What follows the kind in a chord symbol: "add9", "(♭5)", "(♯9)", "(no3)". */
function alterationsText(chord: Chord): string {
  const seventh = /7|9|1[13]/.test(kindOf(chord).symbol);
  return (chord.altered ?? [])
    .map(({ type, degree, alter }) => {
      const name = `${accidentalText(alter)}${degree}`;
      if (type === 'leave out') return `(no${degree})`;
      return alter !== 0 ? `(${name})` : type === 'add' && !seventh ? `(add${degree})` : `(${name})`;
    })
    .join('');
}

/** The kind and its alterations as they are written: "m7", "7sus4", "7(♭9)". */
export function kindText(chord: Chord): string {
  const { symbol } = kindOf(chord);
  const adds = (degree: number): boolean =>
    (chord.altered ?? []).some((a) => a.type === 'add' && a.degree === degree && a.alter === 0);
  const without = (...degrees: readonly number[]): string =>
    alterationsText({
      ...chord,
      altered: (chord.altered ?? []).filter(
        (a) => a.type !== 'add' || a.alter !== 0 || !degrees.includes(a.degree),
      ),
    });
  const isSuspended = chord.kind === 'suspended4' || chord.kind === 'suspended2';
  if (isSuspended && adds(7)) {
    // What is stacked on the seventh is named by its highest, as players write it: 9sus4, 13sus4.
    const highest = adds(13) ? 13 : adds(9) ? 9 : 7;
    return `${highest}${symbol}${highest === 7 ? without(7) : highest === 9 ? without(7, 9) : without(7, 9, 11, 13)}`;
  }
  if ((chord.kind === 'sixth' || chord.kind === 'minorSixth') && adds(9)) return `${symbol}/9${without(9)}`;
  return symbol + alterationsText(chord);
}

/** "Am7", "B♭/D" */
export const chordSymbol = (chord: Chord): string =>
  tpcName(chord.root) + kindText(chord) + (chord.bass === undefined ? '' : `/${tpcName(chord.bass)}`);

/** Chord tones by name: "A C E". */
export const chordToneNames = (chord: Chord): string => chordTones(chord).map(tpcName).join(' ');

export const sameChord = (a: Chord | null, b: Chord | null): boolean =>
  a === b ||
  (!!a &&
    !!b &&
    a.root === b.root &&
    a.kind === b.kind &&
    bassOf(a) === bassOf(b) &&
    kindText(a) === kindText(b));

/** 0 root in the bass, 1 the third, 2 the fifth, 3 the seventh, −1 a bass outside the chord. */
export const inversion = (chord: Chord): number =>
  chordTones(chord).findIndex((tone) => pitchClass(tone) === pitchClass(bassOf(chord)));

const ROMAN = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII'];

/** A tone's place in a key: letters above the tonic, 0 to 6, and by how much it is altered there. */
function placeInKey(tone: Fifths, key: Key): { letter: number; alter: number } {
  // Four fifths make two letters, and so on round the seven.
  const letter = ((((tone - tonicFifths(key)) * 4) % 7) + 7) % 7;
  return { letter, alter: Math.round((tone - scaleFifths(key)[letter]!) / 7) };
}

/** Where a chord's root stands in a key, as a number: "6", "♭7". */
export function degreeOfRoot({ root }: Chord, key: Key): string {
  const { letter, alter } = placeInKey(root, key);
  return `${accidentalText(alter)}${letter + 1}`;
}

/**
 * What a chord outside the key is there for, as the root to which it leads: the fifth below a major chord or a seventh, the half step
 * above a diminished one, where that is a degree of the key other than home. A dominant seventh on home leads to IV only where IV
 * follows: in a blues it is home. Undefined where it leads nowhere.
 */
function targetOf(chord: Chord, key: Key, next: Chord | null | undefined): Fifths | undefined {
  if (isDiatonic(chord, key)) return undefined;
  const { tones } = kindOf(chord);
  const has = (tone: Fifths): boolean => tones.includes(tone);
  const isDominant = has(MAJOR_THIRD) && has(FIFTH) && !has(MAJOR_SEVENTH) && !has(SIXTH);
  const isDiminished = has(MINOR_THIRD) && has(DIMINISHED_FIFTH);
  if (!isDominant && !isDiminished) return undefined;
  const target = chord.root + (isDominant ? -1 : -5);
  const home = tonicFifths(key);
  if (target === home || !scaleFifths(key).includes(target)) return undefined;
  const follows = !!next && next.root === target;
  if (chord.root === home) return follows ? target : undefined;
  // Without a seventh a major chord on IV or VI of minor is a colour of its key, and leads nowhere by itself.
  const isOfParallel = isDominant && !has(MINOR_SEVENTH) && chord.root === home - 1;
  return isOfParallel && !follows ? undefined : target;
}

/** Intervals above a root, on the line of fifths. */
const FIFTH: Fifths = 1;
const SIXTH: Fifths = 3;
const MAJOR_SEVENTH: Fifths = 5;
const MINOR_SEVENTH: Fifths = -2;
const DIMINISHED_FIFTH: Fifths = -6;

/** What stands behind the numeral: "7", "°7", "ø7", "(add6)". */
const romanFigure = (chord: Chord): string =>
  kindText(chord)
    .replace(/^m(?!aj)/, '')
    .replace('dim', '°')
    .replace('aug', '+')
    // A six alone is the first inversion: the added one says so.
    .replace(/^6(\/9)?/, (_, nine) => (nine ? '(6/9)' : '(add6)'))
    .replace(/^7♭5$/, 'ø7');

/**
 * Degree of the chord's root in a key as a Roman numeral, lower case for minor thirds: "vi7", "♭VII". A chord outside the key that leads
 * to one of its degrees is named by that: "V7/ii", "vii°7/V". `next` is the chord after it, where it is known.
 */
export function degree(chord: Chord, key: Key, next?: Chord | null): string {
  const target = targetOf(chord, key, next);
  if (target !== undefined) {
    const { letter } = placeInKey(target, key);
    const scale = scaleFifths(key);
    const isMinor = scale[(letter + 2) % 7]! - target === MINOR_THIRD;
    // In minor one leads to V as it is played, with its leading note.
    const isFifth = letter === 4;
    const numeral = isMinor && !isFifth ? ROMAN[letter]!.toLowerCase() : ROMAN[letter]!;
    return `${kindOf(chord).romanMinor ? 'vii' : 'V'}${romanFigure(chord)}/${numeral}`;
  }
  const { letter, alter } = placeInKey(chord.root, key);
  const numeral = kindOf(chord).romanMinor ? ROMAN[letter]!.toLowerCase() : ROMAN[letter]!;
  return accidentalText(alter) + numeral + romanFigure(chord);
}

/**
 * The same as a plain number, for those who say "6 4 1 5": what the key itself makes of the chord is not repeated, so the
 * minor chord on the sixth degree of a major key is 6, a major one there "6 major"; the fifth of a minor key is major, as
 * its leading note has it. Figures follow in brackets, "5(7)", and a bass is a number too: "1/3".
 */
export function numberDegree(chord: Chord, key: Key): string {
  const { letter, alter } = placeInKey(chord.root, key);
  const scale = scaleFifths(key);
  const diatonicThird = scale[(letter + 2) % 7]! - scale[letter]!;
  const usual = letter === 4 || diatonicThird === MAJOR_THIRD ? MAJOR_THIRD : MINOR_THIRD;
  const third = kindOf(chord).tones.find((t) => t === MAJOR_THIRD || t === MINOR_THIRD);
  const figure = kindText(chord).replace(/^m(?!aj)/, '');
  const isFifthAltered = /^(dim|aug|7♭5)/.test(figure);
  const colour =
    third === undefined || isFifthAltered || (third === usual && alter === 0)
      ? ''
      : third === MAJOR_THIRD
        ? ' major'
        : ' minor';
  const bass = chord.bass === undefined ? undefined : placeInKey(chord.bass, key);
  return (
    `${accidentalText(alter)}${letter + 1}${/^\d/.test(figure) ? `(${figure})` : figure}${colour}` +
    (bass ? `/${accidentalText(bass.alter)}${bass.letter + 1}` : '')
  );
}

const MAJOR_THIRD: Fifths = 4;
const MINOR_THIRD: Fifths = -3;

/** Whether every tone of the chord belongs to the key (harmonic minor's leading note counts as belonging). */
export function isDiatonic(chord: Chord, key: Key): boolean {
  const scale = new Set(scaleFifths(key).map(pitchClass));
  if (key.mode === 'minor') scale.add(pitchClass(tonicFifths(key) + 5));
  return chordTones(chord).every((tone) => scale.has(pitchClass(tone)));
}
