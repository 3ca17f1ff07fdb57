import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readMusicXml } from '../io/musicxml/read';
import { writeMusicXml } from '../io/musicxml/write';
import { scoreFrom } from '../test/shorthand';
import type { Measure } from './score';
import { playingOrder } from './unfold';

type Signs = Partial<Pick<Measure, 'repeatStart' | 'repeatEnd' | 'ending' | 'endingEnd' | 'route'>>;

/** Measures with signs; the order is told as letters, A for the first. */
const signed = (...signs: Signs[]): Measure[] =>
  scoreFrom({
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right: signs.map(() => 'C4:4').join(' | '),
  }).measures.map((m, i) => ({ ...m, ...signs[i] }));
const order = (...signs: Signs[]): string =>
  playingOrder(signed(...signs))
    .map((i) => 'ABCDEFGHIJ'[i])
    .join('');

const plain: Signs = {};

describe('the order of playing', () => {
  it.each<[string, Signs[], string]>([
    ['nothing to repeat', [plain, plain], 'AB'],
    ['a repeat from the beginning', [plain, { repeatEnd: true }, plain], 'ABABC'],
    ['a repeat between signs', [plain, { repeatStart: true }, { repeatEnd: true }, plain], 'ABCBCD'],
    ['two repeats after each other', [{ repeatEnd: true }, { repeatEnd: true }], 'AABB'],
    ['one measure repeated', [{ repeatStart: true, repeatEnd: true }, plain], 'AAB'],
    [
      'first and second ending',
      [plain, { ending: '1', repeatEnd: true }, { ending: '2', endingEnd: true }, plain],
      'ABACD',
    ],
    [
      'endings of two measures',
      [plain, { ending: '1' }, { repeatEnd: true }, { ending: '2' }, { endingEnd: true }, plain],
      'ABCADEF',
    ],
    [
      'three times, one ending for the first two',
      [plain, { ending: '1, 2', repeatEnd: true }, { ending: '3', endingEnd: true }],
      'ABABAC',
    ],
    [
      'a repeat after an ending begins behind it',
      [plain, { ending: '1', repeatEnd: true }, { ending: '2', endingEnd: true }, { repeatEnd: true }],
      'ABACDD',
    ],
    ['da capo al fine', [plain, { route: { fine: true } }, { route: { jump: 'da capo' } }], 'ABCAB'],
    [
      'dal segno al coda',
      [
        plain,
        { route: { segno: true } },
        { route: { toCoda: true } },
        { route: { jump: 'dal segno' } },
        { route: { coda: true } },
      ],
      'ABCDBCE',
    ],
    [
      'two coda signs and no words',
      [plain, { route: { coda: true } }, { route: { jump: 'da capo' } }, { route: { coda: true } }],
      'ABCABD',
    ],
    [
      'repeats are not taken again after a jump, and the last ending is played',
      [
        plain,
        { ending: '1', repeatEnd: true },
        { ending: '2', endingEnd: true, route: { jump: 'da capo' } },
        plain,
      ],
      'ABACACD',
    ],
  ])('%s', (_name, signs, expected) => expect(order(...signs)).toBe(expected));

  it('law: always ends, plays only what is there, and begins at the beginning', () => {
    const sign = fc.record(
      {
        repeatStart: fc.constant(true),
        repeatEnd: fc.constant(true),
        ending: fc.constantFrom('1', '2', '1, 2', '3'),
        endingEnd: fc.constant(true),
        route: fc.constantFrom(
          { jump: 'da capo' as const },
          { segno: true },
          { coda: true },
          { fine: true },
          { jump: 'dal segno' as const },
        ),
      },
      { requiredKeys: [] },
    );
    fc.assert(
      fc.property(fc.array(sign, { minLength: 1, maxLength: 10 }), (signs) => {
        const played = playingOrder(signed(...signs));
        expect(played.length).toBeLessThanOrEqual(400);
        for (const index of played) expect(index).toBeLessThan(signs.length);
      }),
    );
  });

  it('comes through a file and back', () => {
    const base = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C4:4 | D4:4 | E4:4 | F4:4 | G4:4 | A4:4',
    });
    const signs: Signs[] = [
      { route: { segno: true } },
      { ending: '1', repeatEnd: true },
      { ending: '2', endingEnd: true },
      { route: { toCoda: true } },
      { route: { jump: 'dal segno' } },
      { route: { coda: true } },
    ];
    const score = { ...base, measures: base.measures.map((m, i) => ({ ...m, ...signs[i] })) };
    const back = readMusicXml(writeMusicXml(score)).score;
    expect(playingOrder(back.measures)).toEqual(playingOrder(score.measures));
    expect(
      playingOrder(score.measures)
        .map((i) => 'ABCDEF'[i])
        .join(''),
    ).toBe('ABACDEACDF');
  });
});
