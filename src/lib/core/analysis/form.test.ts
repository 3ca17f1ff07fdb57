import { describe, expect, it } from 'vitest';
import type { Score } from '../score/score';
import { scoreFrom } from '../test/shorthand';
import { lineText } from './byHand';
import { formOf } from './form';

const time = { beats: 4, beatType: 4 };
const melody = (...sections: string[]): Score => scoreFrom({ key: 'C', time, right: sections.join(' | ') });
const shown = (score: Score): string[] =>
  formOf(score).sections.map((s) => `${s.letter}${'′'.repeat(s.prime)} ${s.from + 1}–${s.to + 1}`);

const A =
  'E4:1 G4:1 C5:1 B4:1 | A4:2 F4:1 A4:1 | G4:1 E4:1 D4:1 E4:1 | F4:2 D4:2 | E4:1 G4:1 C5:1 D5:1 | E5:2 C5:1 A4:1 | G4:1 F4:1 D4:1 B3:1 | C4:4';
const B =
  'A4:1.5 B4:0.5 C5:2 | B4:1 A4:1 G4:2 | F4:1.5 G4:0.5 A4:2 | G4:1 F4:1 E4:2 | A4:1 A4:1 B4:1 B4:1 | C5:2 E5:2 | D5:1 C5:1 B4:1 A4:1 | G4:4';
const INTRO = 'C4:0.5 G4:0.5 C5:1 G4:2 | C4:0.5 A4:0.5 C5:1 A4:2 | D4:0.5 G4:0.5 B4:1 G4:2 | C4:1 E4:1 G4:2';
/** A section with one note of its sixth measure changed. */
const changed = A.replace('E5:2 C5:1 A4:1', 'E5:2 C5:1 B4:1');
/** Every pitch up a fourth, in C: only for melodies of white keys without B. */
const raised = (text: string): string =>
  text.replace(/([A-G])(\d)/g, (_, step: string, octave: string) => {
    const at = 'CDEFGAB'.indexOf(step) + 3;
    const name = step === 'F' ? 'Bb' : 'CDEFGAB'[at % 7]!;
    return `${name}${Number(octave) + (at >= 7 ? 1 : 0)}`;
  });

describe('form without marks', () => {
  it('of AABA', () => expect(shown(melody(A, A, B, A))).toEqual(['A 1–8', 'A 9–16', 'B 17–24', 'A 25–32']));
  it('with an introduction of four measures', () =>
    expect(shown(melody(INTRO, A, A, B, A))).toEqual(['A 1–4', 'B 5–12', 'B 13–20', 'C 21–28', 'B 29–36']));
  it('of verse and chorus in turn, with a bridge', () =>
    expect(shown(melody(A, B, A, B, INTRO, B))).toEqual([
      'A 1–8',
      'B 9–16',
      'A 17–24',
      'B 25–32',
      'C 33–36',
      'B 37–44',
    ]));
  it('after a pickup', () => {
    const score = scoreFrom({ key: 'C', time, pickup: 1, right: ['G4:1', A, A, B, A].join(' | ') });
    expect(formOf(score).sections.map((s) => [s.letter, s.from, s.to])).toEqual([
      ['A', 0, 8],
      ['A', 9, 16],
      ['B', 17, 24],
      ['A', 25, 32],
    ]);
  });
  it('without anything that comes again is cut every eight measures', () =>
    expect(shown(melody(A, B))).toEqual(['A 1–8', 'B 9–16']));
});

describe('variants', () => {
  it('have a prime, the measure, and the notes that differ', () => {
    const form = formOf(melody(A, changed, B, A));
    expect(form.sections.map((s) => s.letter + '′'.repeat(s.prime))).toEqual(['A', 'A′', 'B', 'A']);
    expect(form.sections[1]!.variant).toEqual({
      of: 0,
      transposed: 0,
      differences: [{ measure: 13, as: 5, now: ['B4'], before: ['A4'] }],
      hands: [{ line: 'melody', is: 'other', same: 19, differs: [{ measure: 13, half: 'second' }] }],
    });
    expect(form.sections[3]!.repeats).toBe('A');
    expect(form.newMeasures).toBe(17);
  });
  it('are told apart when there are several', () => {
    const other = A.replace('G4:1 E4:1 D4:1 E4:1', 'G4:1 E4:1 D4:1 C4:1');
    expect(shown(melody(A, changed, other, changed))).toEqual(['A 1–8', 'A′ 9–16', 'A′′ 17–24', 'A′ 25–32']);
  });
  it('may be the same at another pitch', () => {
    const form = formOf(melody(A, raised(A), B, A));
    expect(form.sections.map((s) => s.letter + '′'.repeat(s.prime))).toEqual(['A', 'A′', 'B', 'A']);
    expect(form.sections[1]!.variant).toMatchObject({ of: 0, transposed: 5, differences: [] });
  });
});

describe('equal chords', () => {
  const chords = 'C | Am | F | G | C | Am | F | G';
  const left = Array.from(
    { length: 8 },
    (_, i) => `${['C3', 'A2', 'F2', 'G2'][i % 4]}:0.5 E3:0.5 G3:0.5 E3:0.5 C3:0.5 E3:0.5 G3:0.5 E3:0.5`,
  ).join(' | ');
  const over = (...tunes: string[]): Score =>
    scoreFrom({
      key: 'C',
      time,
      right: tunes.join(' | '),
      left: tunes.map(() => left).join(' | '),
      chords: tunes.map(() => chords).join(' | '),
      sections: { 1: '', 9: '' },
    });
  it('under another melody are another section, however much of it is the accompaniment', () => {
    expect(shown(over(A, B))).toEqual(['A 1–8', 'B 9–16']);
    expect(shown(over(A, changed))).toEqual(['A 1–8', 'A′ 9–16']);
  });
  it('under the same melody are the same section, however the accompaniment goes', () => {
    const held = scoreFrom({
      key: 'C',
      time,
      right: [A, A].join(' | '),
      left: [
        left,
        Array.from({ length: 8 }, (_, i) => `${['C3', 'A2', 'F2', 'G2'][i % 4]}:4`).join(' | '),
      ].join(' | '),
    });
    const form = formOf(held);
    expect(form.sections.map((s) => s.letter + '′'.repeat(s.prime))).toEqual(['A', 'A′']);
    expect(
      form.sections[1]!.variant!.hands.map((h) =>
        lineText(
          h,
          held.measures.map((m) => m.number),
        ),
      ),
    ).toEqual(['the right hand is the same', 'the left hand holds']);
  });
});

describe('measures in all', () => {
  it('are those that are played, repeats and endings unfolded', () => {
    const score = melody(A, B);
    const measures = score.measures.map((m, i) => ({
      ...m,
      ...(i === 7 ? { repeatEnd: true } : {}),
    }));
    const form = formOf({ ...score, measures });
    expect([form.newMeasures, form.measureCount]).toEqual([16, 24]);
    expect(form.sections.map((s) => [s.from, s.to])).toEqual([
      [0, 7],
      [8, 15],
    ]);
  });
});
