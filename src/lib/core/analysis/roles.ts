/**
 * What the sections of a song are for: intro, verse, chorus, bridge, ending. By their names where they have such; else
 * proposed from what comes again, with which words, and from how long it is.
 */

import type { Role } from '../score/score';

export { ROLES, type Role } from '../score/score';

export interface SectionRole {
  readonly role: Role;
  /** Whether a name says so, or the music was read for it. */
  readonly from: 'name' | 'music';
}

/** Names of each role as they stand in songs. */
const NAMES: readonly (readonly [RegExp, Role])[] = [
  [/\b(intro(duction)?|prelude|vamp)\b/i, 'intro'],
  [/\b(chorus|refrain|hook)\b/i, 'chorus'],
  [/\b(verse|strophe|stanza)\b/i, 'verse'],
  [/\b(bridge|middle( eight| part)?|interlude)\b/i, 'bridge'],
  [/\b(ending|outro|coda|tag|close)\b/i, 'ending'],
];

/** The role that a name stands for: "Verse 2" is a verse, "Pre-chorus" none of these. */
export const roleNamed = (name: string): Role | undefined =>
  /\bpre[- ]?chorus\b/i.test(name) ? undefined : NAMES.find(([pattern]) => pattern.test(name))?.[1];

/** What is known of a section when its role is sought. */
export interface SectionFacts {
  readonly letter: string;
  readonly name?: string | undefined;
  readonly measures: number;
  /** How often it is played where it stands: twice inside a repeat. */
  readonly times: number;
  /** Its words, verse by verse; empty where nobody sings. */
  readonly words: readonly string[];
}

/** An introduction or an ending is at most half as long as the longest section. */
const SHORT = 0.5;
/** Sections of which the first and the last can frame the others where nobody sings. */
const FRAMED = 4;

/** A role for each section, undefined where nothing speaks for one. */
export function rolesOf(sections: readonly SectionFacts[]): (SectionRole | undefined)[] {
  const proposed = proposedRoles(sections);
  return sections.map(({ name }, i) => {
    const named = name === undefined ? undefined : roleNamed(name);
    if (named) return { role: named, from: 'name' };
    const role = proposed[i];
    return role && { role, from: 'music' };
  });
}

function proposedRoles(sections: readonly SectionFacts[]): (Role | undefined)[] {
  const roles: (Role | undefined)[] = sections.map(() => undefined);
  if (sections.length < 2) return roles;
  const longest = Math.max(...sections.map((s) => s.measures));
  const someSing = sections.some((s) => s.words.length > 0);
  const once = (letter: string): boolean => sections.filter((s) => s.letter === letter).length === 1;
  const frames = ({ letter, measures, words, times }: SectionFacts): boolean =>
    once(letter) && times === 1 && (someSing ? words.length === 0 : measures <= longest * SHORT);
  const last = sections.length - 1;
  // Of a tune in two or three strains none leads in or out.
  if (someSing || sections.length >= FRAMED) {
    if (frames(sections[0]!)) roles[0] = 'intro';
    if (frames(sections[last]!)) roles[last] = 'ending';
  }
  // Verse and chorus are names for what is sung: the strains of a tune or a dance go by their letters.
  if (!someSing) {
    const letters = sections.map((s) => s.letter).join('');
    return letters === 'AABA' ? [undefined, undefined, 'bridge', undefined] : roles;
  }

  const body = sections.map((s, i) => ({ ...s, i })).filter(({ i }) => roles[i] === undefined);
  const sung = body.filter((s) => s.words.length > 0);
  const letters = [...new Set(sung.map((s) => s.letter))];
  const byLetter = new Map<string, Role>();
  // A chorus keeps its words, a verse changes them.
  for (const letter of letters) {
    const own = sung.filter((s) => s.letter === letter);
    const texts = own.flatMap((s) => s.words);
    if (texts.length < 2) continue;
    const same = new Set(texts).size === 1;
    if (!same) byLetter.set(letter, 'verse');
    else if (own.length > 1 && letters.length > 1) byLetter.set(letter, 'chorus');
  }
  const has = (role: Role): boolean => [...byLetter.values()].includes(role);
  const plays = (letter: string): number =>
    sung.filter((s) => s.letter === letter).reduce((sum, s) => sum + s.times, 0);
  const returning = letters.filter((letter) => plays(letter) > 1);
  const open = (list: readonly string[]): string | undefined => list.find((letter) => !byLetter.has(letter));
  if (!has('verse')) {
    const letter = open(returning) ?? open(letters);
    if (letter) byLetter.set(letter, 'verse');
  }
  if (!has('chorus')) {
    // What returns beside the verse; where nothing returns, what follows the verse.
    const letter = open(returning) ?? (returning.length === 0 ? open(letters) : undefined);
    if (letter) byLetter.set(letter, 'chorus');
  }
  for (const letter of letters) if (!byLetter.has(letter)) byLetter.set(letter, 'bridge');
  for (const { letter, i } of sung) roles[i] = byLetter.get(letter);
  return roles;
}
