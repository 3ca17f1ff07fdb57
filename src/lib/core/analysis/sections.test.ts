import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import type { Score } from '../score/score';
import { scoreFrom } from '../test/shorthand';
import { formOf } from './form';
import { pickupsInto } from './private/pickups';
import { roleNamed, rolesOf, type SectionFacts } from './roles';
import {
  joinSection,
  moveSection,
  renameSection,
  sectionStartsSchema,
  splitSection,
  type SectionStart,
} from './sections';
import { melodyOf } from './melody';

const fourFour = { beats: 4, beatType: 4 };
const A = 'C4:1 D4:1 E4:1 F4:1 | G4:2 E4:2 | A4:1 G4:1 F4:1 E4:1 | D4:4';
const B = 'G4:1 A4:1 B4:1 G4:1 | C5:2 G4:2 | A4:0.5 B4:0.5 C5:1 D5:2 | G4:4';
const piece = (...parts: string[]): Score =>
  scoreFrom({
    key: 'C',
    time: fourFour,
    right: parts.join(' | '),
    left: parts
      .join(' | ')
      .split('|')
      .map(() => 'C3:4')
      .join(' | '),
  });

describe('names and roles', () => {
  it.each([
    ['Verse 2', 'verse'],
    ['CHORUS', 'chorus'],
    ['Refrain', 'chorus'],
    ['Introduction', 'intro'],
    ['Middle eight', 'bridge'],
    ['Coda', 'ending'],
    ['Pre-chorus', undefined],
    ['Allegro', undefined],
    ['B', undefined],
  ])('%s', (name, role) => expect(roleNamed(name)).toBe(role));

  const facts = (
    letters: string,
    change: (f: SectionFacts, i: number) => Partial<SectionFacts> = () => ({}),
  ) =>
    [...letters].map((letter, i): SectionFacts => {
      const plain = { letter, measures: 8, times: 1, words: [] };
      return { ...plain, ...change(plain, i) };
    });
  const roles = (sections: readonly SectionFacts[]) => rolesOf(sections).map((r) => r?.role);

  /** Sung, each time with other words. */
  const sung = (letters: string): SectionFacts[] => facts(letters, (_, i) => ({ words: [`words ${i}`] }));

  it('of AABA the B is the bridge', () => {
    expect(roles(sung('AABA'))).toEqual(['verse', 'verse', 'bridge', 'verse']);
    expect(roles(facts('AABA'))).toEqual([undefined, undefined, 'bridge', undefined]);
  });
  it('strains of a tune that nobody sings go by their letters', () => {
    expect(roles(facts('ABA', ({ letter }) => (letter === 'A' ? { measures: 4 } : {})))).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
    expect(roles(facts('AB', () => ({ times: 2 })))).toEqual([undefined, undefined]);
  });
  it('of two that return the first is the verse', () =>
    expect(roles(facts('ABABCB', (_, i) => ({ words: i === 4 ? ['other'] : [`w${i}`] })))).toEqual([
      'verse',
      'verse',
      'verse',
      'verse',
      'bridge',
      'verse',
    ]));
  it('what is short and stands alone at the ends frames the rest', () =>
    expect(roles(facts('XABABY', ({ letter }) => (/[XY]/.test(letter) ? { measures: 4 } : {})))).toEqual([
      'intro',
      undefined,
      undefined,
      undefined,
      undefined,
      'ending',
    ]));
  it('a chorus keeps its words and may come first', () =>
    expect(
      roles(facts('ABABA', ({ letter }, i) => ({ words: [letter === 'A' ? 'oh the kite' : `verse ${i}`] }))),
    ).toEqual(['chorus', 'verse', 'chorus', 'verse', 'chorus']));
  it('a written repeat counts as coming again', () =>
    expect(roles(facts('AB', (_, i) => ({ times: 2, words: [`w${i}`] })))).toEqual(['verse', 'chorus']));
  it('a name goes before what the music proposes, and says so', () =>
    expect(rolesOf(facts('AABA', (_, i) => (i === 2 ? { name: 'Chorus' } : {})))[2]).toEqual({
      role: 'chorus',
      from: 'name',
    }));
  it('one section has none', () => expect(roles(facts('A'))).toEqual([undefined]));
  it('are named by words above the music where there are no rehearsal marks', () => {
    const plain = piece(A, B);
    const score: Score = {
      ...plain,
      parts: plain.parts.map((p) => ({
        ...p,
        marks: [
          { kind: 'words', onset: 0, staff: 1, text: 'Verse' },
          { kind: 'words', onset: 8 * Q, staff: 1, text: 'slower' },
          { kind: 'words', onset: 16 * Q, staff: 1, text: 'Chorus' },
        ],
      })),
    };
    expect(formOf(score).sections.map((s) => [s.label, s.from, s.role?.role])).toEqual([
      ['Verse', 0, 'verse'],
      ['Chorus', 4, 'chorus'],
    ]);
  });
});

describe("the teacher's own form", () => {
  const aba = piece(A, B, A);
  it('goes over everything that is found, and letters follow it', () => {
    const own = [{ measure: 0, name: 'Opening' }, { measure: 8 }];
    expect(formOf({ ...aba, sectionStarts: own }).sections.map((s) => [s.label, s.from, s.to])).toEqual([
      ['Opening', 0, 7],
      ['B', 8, 11],
    ]);
    const thirds = [{ measure: 0 }, { measure: 4 }, { measure: 8 }];
    expect(formOf({ ...aba, sectionStarts: thirds }).sections.map((s) => s.label)).toEqual(['A', 'B', 'A']);
  });
  it('moves, splits, joins and renames', () => {
    const starts: SectionStart[] = [{ measure: 0 }, { measure: 4, name: 'Melody' }, { measure: 8 }];
    expect(moveSection(starts, 1, 3, 12)[1]).toEqual({ measure: 3, name: 'Melody' });
    expect(moveSection(starts, 1, 99, 12)[1]!.measure).toBe(7);
    expect(moveSection(starts, 0, 3, 12)).toEqual(starts);
    expect(splitSection(starts, 6).map((s) => s.measure)).toEqual([0, 4, 6, 8]);
    expect(joinSection(starts, 1).map((s) => s.measure)).toEqual([0, 8]);
    expect(renameSection(starts, 2, ' Last ')[2]).toEqual({ measure: 8, name: 'Last' });
    expect(renameSection(starts, 1, '')[1]).toEqual({ measure: 4 });
  });
  it('stays a form whatever is done to it', () => {
    const step = fc.tuple(fc.constantFrom('move', 'split', 'join', 'name'), fc.nat(20), fc.nat(11));
    fc.assert(
      fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
        let starts: SectionStart[] = [{ measure: 0 }];
        for (const [what, i, measure] of steps) {
          const index = i % starts.length;
          if (what === 'move') starts = moveSection(starts, index, measure, 12);
          else if (what === 'split') starts = splitSection(starts, measure);
          else if (what === 'join') starts = joinSection(starts, index);
          else starts = renameSection(starts, index, `name ${measure}`);
        }
        expect(sectionStartsSchema.safeParse(starts).success).toBe(true);
        const { sections } = formOf({ ...aba, sectionStarts: starts });
        expect(sections[0]!.from).toBe(0);
        expect(sections.at(-1)!.to).toBe(11);
        sections.slice(1).forEach((s, k) => expect(s.from).toBe(sections[k]!.to + 1));
      }),
    );
  });
  it('refuses what is no form', () => {
    for (const starts of [
      [],
      [{ measure: 1 }],
      [{ measure: 0 }, { measure: 0 }],
      [{ measure: 0 }, { measure: -1 }],
    ])
      expect(sectionStartsSchema.safeParse(starts).success).toBe(false);
  });
});

describe('pickups inside a piece', () => {
  const borrowing = scoreFrom({
    key: 'C',
    time: fourFour,
    pickup: 1,
    right:
      'G4:1 | C5:1 D5:1 E5:1 C5:1 | D5:2 B4:2 | C5:1 A4:1 F4:1 A4:1 | G4:3 G4:1 | ' +
      'C5:1 D5:1 E5:1 C5:1 | D5:2 B4:2 | C5:1 A4:1 F4:1 A4:1 | G4:3 r:1',
    left: 'r:1 | C3:4 | G3:4 | F3:4 | C3:4 | C3:4 | G3:4 | F3:4 | C3:4',
  });
  it('are heard after a long note, as the piece itself begins', () =>
    expect(pickupsInto(melodyOf(borrowing), borrowing.measures)[5]).toBe(Q));
  it('are heard after a rest', () => {
    const score = scoreFrom({
      key: 'C',
      time: fourFour,
      right: 'C4:4 | D4:2 r:1 E4:0.5 F4:0.5 | G4:4',
      left: 'C3:4 | C3:4 | C3:4',
    });
    expect(pickupsInto(melodyOf(score), score.measures)).toEqual([0, 0, Q]);
  });
  it('are not heard in a line that runs on or is held over', () => {
    for (const right of ['C4:1 D4:1 E4:1 F4:1 | G4:4', 'C4:1 r:1 E4:2 | G4:4', 'r:2 C4:2 | G4:4']) {
      const score = scoreFrom({ key: 'C', time: fourFour, right, left: 'C3:4 | C3:4' });
      expect(pickupsInto(melodyOf(score), score.measures)[1]).toBe(right.startsWith('C4:1 r') ? 2 * Q : 0);
    }
  });
  it('belong to the section they lead into: the one before is no variant for them', () => {
    const { sections } = formOf({ ...borrowing, sectionStarts: [{ measure: 0 }, { measure: 5 }] });
    expect(sections.map((s) => [s.label, s.repeats, s.pickup])).toEqual([
      ['A', undefined, undefined],
      ['A', 'A', Q],
    ]);
  });
});
