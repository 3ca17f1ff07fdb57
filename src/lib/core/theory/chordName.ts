/** Chord names as people type and print them, read into chords: "Am7", "F♯m7b5/A", "G7sus4", "C6/9", "E7(#9)", "N.C.". */
import type { Step } from './pitch';
import type { Chord, ChordAlteration } from './chord';
import { CHORD_KINDS, type ChordKindId } from './chordKinds';
import { toFifths, type Fifths } from './fifths';

/** Other spellings of the kinds, beside the symbols of the table itself. */
const OTHER_NAMES: Readonly<Record<string, ChordKindId>> = {
  maj: 'major',
  M: 'major',
  major: 'major',
  min: 'minor',
  mi: 'minor',
  minor: 'minor',
  '-': 'minor',
  '°': 'diminished',
  '+': 'augmented',
  '#5': 'augmented',
  dom7: 'dominant7',
  M7: 'major7',
  Maj7: 'major7',
  ma7: 'major7',
  major7: 'major7',
  Δ: 'major7',
  Δ7: 'major7',
  j7: 'major7',
  min7: 'minor7',
  mi7: 'minor7',
  '-7': 'minor7',
  mM7: 'minorMajor7',
  mmaj7: 'minorMajor7',
  'm(M7)': 'minorMajor7',
  mΔ: 'minorMajor7',
  '-maj7': 'minorMajor7',
  '°7': 'diminished7',
  o7: 'diminished7',
  m7b5: 'halfDiminished',
  'm7(b5)': 'halfDiminished',
  min7b5: 'halfDiminished',
  '-7b5': 'halfDiminished',
  ø: 'halfDiminished',
  ø7: 'halfDiminished',
  maj6: 'sixth',
  M6: 'sixth',
  min6: 'minorSixth',
  '-6': 'minorSixth',
  sus: 'suspended4',
  '4': 'suspended4',
  '2': 'suspended2',
  M9: 'major9',
  Maj9: 'major9',
  min9: 'minor9',
  '-9': 'minor9',
  '+7': 'augmented7',
  '7+': 'augmented7',
  '7#5': 'augmented7',
  M13: 'major13',
  min11: 'minor11',
  min13: 'minor13',
};

/**
 * Ways of writing that songbooks have beside those of the tables, brought to the latter before anything is read, in this
 * order: capitals and signs for major and minor, suspensions with more than a seventh, altered fifths before what they alter.
 */
const WRITINGS: readonly (readonly [RegExp, string])[] = [
  [/^(MAJ|Maj|MA|Ma)(?![a-z])/, 'maj'],
  [/^(minor|MIN|Min|MI|Mi|min|mi)/, 'm'],
  [/^-(?![0-9]?-)/, 'm'],
  [/^m[/(]?\s*(?:maj|MAJ|Maj|MA|Ma|ma|M|Δ|\^|#)\s*(7|9|11|13)?\)?/, 'm(maj7)$1'],
  [/^m\(maj7\)7/, 'm(maj7)'],
  [/^(?:Δ|\^)(?=9|11|13)/, 'maj'],
  [/^(?:Δ|\^)7?/, 'maj7'],
  // Alone it makes words: “Go”, “Do”.
  [/^o(?=7|\(|M|maj)/, 'dim'],
  [/^(?:°|dim)\(?(?:M|maj|Δ)7\)?/, 'dim(#7)'],
  [/^\+(?:M|maj)7/, 'maj7#5'],
  [/^\+(7|9|11|13)/, '$1#5'],
  [/^(7|9|11|13)\+(?![0-9])/, '$1#5'],
  [/^(7|9|11|13)\+(?=[0-9])/, '$1#'],
  [/^7?\(?alt\.?\)?$/, '7(#5)(#9)'],
  [/^9\(?sus4?\)?/, '7sus4(9)'],
  [/^(?:11|13)\(?sus4?\)?/, '7sus4(9)(13)'],
  [/^maj7\(?sus4?\)?/, 'sus4(#7)'],
  [/^sus2(?:sus)?4/, 'sus4(9)'],
  [/(no|omit)\s*(\d)(?:rd|th|nd)/g, '$1$2'],
];

const KINDS: readonly (readonly [string, ChordKindId])[] = [
  ...(Object.keys(CHORD_KINDS) as ChordKindId[]).map(
    (id) => [CHORD_KINDS[id].symbol.replace('♭', 'b'), id] as const,
  ),
  ...Object.entries(OTHER_NAMES),
].sort((a, b) => b[0].length - a[0].length); // the longest name that fits is the one that is meant

const ROOT = /^([A-G])(##|#|x|bb|b)?/;

const place = (step: string, accidental = ''): Fifths =>
  toFifths({
    step: step as Step,
    alter: accidental === 'x' ? 2 : accidental.startsWith('#') ? accidental.length : -accidental.length,
  });

/** The root of a name that begins like a chord's, whatever follows it; undefined where it does not. */
export function rootNamed(text: string): Fifths | undefined {
  const root = ROOT.exec(text.trim().replace(/♯/g, '#').replace(/♭/g, 'b'));
  return root ? place(root[1]!, root[2]) : undefined;
}

/** Reads a chord name; null says "no chord here", undefined that the text names no chord. */
export function parseChord(text: string): Chord | null | undefined {
  const name = text
    .trim()
    .replace(/^\((.*)\)$/, '$1')
    .replace(/\*+$/, '')
    .replace(/♮/g, '')
    .replace(/♯/g, '#')
    .replace(/♭/g, 'b')
    .replace(/𝄪/g, '##')
    .replace(/𝄫/g, 'bb');
  if (/^(n\.? ?c\.?|no chord|tacet)$/i.test(name)) return null;
  if (name.length > 24) return undefined;
  const root = ROOT.exec(name);
  if (!root) return undefined;
  let rest = name.slice(root[0].length);
  const bass = /\/([A-G])(##|#|x|bb|b)?$/.exec(rest);
  if (bass) rest = rest.slice(0, bass.index);
  const body = kindAndAlterations(rest);
  if (!body) return undefined;
  const rootPlace = place(root[1]!, root[2]);
  const bassPlace = bass ? place(bass[1]!, bass[2]) : undefined;
  return {
    root: rootPlace,
    ...body,
    ...(bassPlace !== undefined && bassPlace !== rootPlace ? { bass: bassPlace } : {}),
  };
}

function kindAndAlterations(written: string): Pick<Chord, 'kind' | 'altered'> | undefined {
  const text = WRITINGS.reduce((t, [pattern, usual]) => t.replace(pattern, usual), written);
  for (const [name, kind] of KINDS) {
    if (!text.startsWith(name)) continue;
    const altered = alterationsOf(text.slice(name.length), kind);
    if (!altered) continue;
    // A seventh with a suspension is a suspended triad with a seventh.
    const suspension = altered.find((a) => a.degree === 4 || a.degree === 2);
    if (kind === 'dominant7' && suspension && /sus/.test(text)) {
      const others = altered.filter((a) => a !== suspension);
      return {
        kind: suspension.degree === 4 ? 'suspended4' : 'suspended2',
        altered: [{ type: 'add', degree: 7, alter: 0 }, ...others],
      };
    }
    return altered.length > 0 ? { kind, altered } : { kind };
  }
  return undefined;
}

/** Whether the chords of a kind have a ninth, eleventh or thirteenth of their own, which an alteration replaces. */
const hasDegree = (kind: ChordKindId, degree: number): boolean => {
  const natural = { 9: 2, 11: -1, 13: 3 }[degree];
  return natural !== undefined && (CHORD_KINDS[kind].tones as readonly number[]).includes(natural);
};

const ALTERATION = /^[(,\s/]*(add|sus|no|omit|alt|[#b+-])?\s*(1[0-3]|[2-9])?[),\s]*/;

/** "b9#11", "(add9)", "sus4", "/9"; undefined where something is left over. */
function alterationsOf(text: string, kind: ChordKindId): ChordAlteration[] | undefined {
  const result: ChordAlteration[] = [];
  let rest = text;
  while (rest) {
    const match = ALTERATION.exec(rest);
    const [whole, word, number] = match ?? [''];
    if (!whole || (!word && !number)) return undefined;
    rest = rest.slice(whole.length);
    const degree = number ? Number(number) : undefined;
    if (word === 'sus') {
      if (kind !== 'dominant7') return undefined;
      result.push({ type: 'add', degree: degree ?? 4, alter: 0 });
    } else if (degree === undefined) return undefined;
    else if (word === 'no' || word === 'omit') result.push({ type: 'leave out', degree, alter: 0 });
    else if (word === '#' || word === '+' || word === 'b' || word === '-') {
      const alter = word === '#' || word === '+' ? 1 : -1;
      const isOwn = degree === 5 || (degree === 7 && alter === -1) || hasDegree(kind, degree);
      result.push({ type: isOwn ? 'alter' : 'add', degree, alter });
    } else if (word === 'add' && /^[#b]/.test(rest)) return undefined;
    else result.push({ type: 'add', degree, alter: 0 });
  }
  return result;
}
