/** How the ear keeps its place: onsets that are missed altogether, small restarts, rolled chords, the ends, ornaments. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { perform } from '../performance/perform';
import { scoreFrom } from '../test/shorthand';
import { expectationOf } from './expectation';
import { judge, type Take } from './judge';
import { pretendToPlay, type MeantKeystroke } from './pretendPlayer';

const tune = scoreFrom({
  key: 'D',
  time: { beats: 4, beatType: 4 },
  tempo: 84,
  right: 'D4:1 E4:1 F#4:1 A4:1 | B4:1 A4:1 G4:1 E4:1 | F#4:1 D5:1 C#5:1 B4:1 | A4:2 D4:2',
});
const expectation = expectationOf(perform(tune), { from: 0, to: 3 });
const strokes = pretendToPlay(expectation, { seed: 9 }).keystrokes;
const slips = (take: Take): string[] =>
  take.measures
    .flatMap((m) => m.notes)
    .flatMap((n) => (n.verdict === 'right' ? [] : [`${n.note.index} ${n.verdict}`]));

describe('a place that is kept', () => {
  it('law: where a whole onset is missed, that is missed and nothing else', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: strokes.length - 1 }), (gone) => {
        const take = judge(
          expectation,
          strokes.filter((_, i) => i !== gone),
        );
        expect(slips(take)).toEqual([`${gone} missed`]);
        expect(take.passes).toHaveLength(1);
        expect(take.measures.flatMap((m) => m.extra)).toEqual([]);
      }),
    );
  });
  it('law: two onsets in a row may be missed', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: strokes.length - 4 }), (gone) => {
        const take = judge(
          expectation,
          strokes.filter((_, i) => i < gone || i > gone + 1),
        );
        expect(slips(take)).toEqual([gone, gone + 1].map((i) => `${i} missed`));
        expect(take.passes).toHaveLength(1);
      }),
    );
  });
  it.each([
    [9, 7],
    [8, 8 - 1],
    [10, 2],
  ])('after onset %i the player begins again at %i', (stop, from) => {
    const { keystrokes } = pretendToPlay(expectation, {
      seed: 4,
      route: [
        [0, stop],
        [from, 13],
      ],
    });
    const take = judge(expectation, keystrokes);
    expect(take.passes.map((p) => [p.from, p.to])).toEqual([
      [0, stop],
      [from, 13],
    ]);
    expect(take.right).toBe(1);
  });
  it('a key corrected at once is right, and the first try one too many', () => {
    const at = strokes[5]!;
    const tried: MeantKeystroke = { onset: at.onset - 0.15, midi: at.midi + 1, pass: 0 };
    const take = judge(expectation, [...strokes, tried]);
    expect(slips(take)).toEqual([]);
    expect(take.measures.flatMap((m) => m.extra).map((e) => e.midi)).toEqual([at.midi + 1]);
  });
});

describe('chords', () => {
  const chords = scoreFrom({
    key: 'C',
    time: { beats: 4, beatType: 4 },
    tempo: 60,
    right: '[C4 E4 G4 C5]:4 | [D4 F4 A4 D5]:4 | [C4 E4 G4 C5]:4',
  });
  const wanted = expectationOf(perform(chords), { from: 0, to: 2 });
  it('are right however slowly they are rolled', () => {
    const rolled = pretendToPlay(wanted, { seed: 1 }).keystrokes.map((k) => ({
      ...k,
      onset: k.onset + 0.09 * (k.note! % 4),
    }));
    expect(judge(wanted, rolled).right).toBe(1);
  });
  it('that come twice are right where the tempo has them, and too many where it has not', () => {
    const played = pretendToPlay(wanted, { seed: 1 }).keystrokes;
    const again = played.filter((k) => k.note! < 4).map((k) => ({ ...k, onset: k.onset + 1.6 }));
    const take = judge(wanted, [...played, ...again]);
    expect(slips(take)).toEqual([]);
  });
});

describe('the ends', () => {
  it('a last note that is another key, or missing, is told once the take is over', () => {
    const last = strokes.length - 1;
    const other = strokes.map((k, i) => (i === last ? { ...k, midi: k.midi + 1 } : k));
    expect(slips(judge(expectation, other))).toEqual([`${last} other`]);
    expect(slips(judge(expectation, strokes.slice(0, last)))).toEqual([`${last} missed`]);
    expect(slips(judge(expectation, strokes.slice(0, last), false))).toEqual([]);
    expect(slips(judge(expectation, strokes.slice(1)))).toEqual(['0 missed']);
  });
});

describe('ornaments', () => {
  const adorned = tune.parts[0]!.notes[5]!;
  const trilled = {
    ...tune,
    parts: tune.parts.map((p) => ({
      ...p,
      notes: p.notes.map((n) => (n.id === adorned.id ? { ...n, ornaments: [{ kind: 'turn' as const }] } : n)),
    })),
  };
  it('may be played or left out', () => {
    const wanted = expectationOf(perform(trilled), { from: 0, to: 3 });
    const own = wanted.notes.filter((n) => n.id === adorned.id);
    expect(own.length).toBeGreaterThan(1);
    expect(own.filter((n) => !n.isOrnament)).toHaveLength(1);
    expect(slips(judge(wanted, pretendToPlay(wanted, { seed: 2 }).keystrokes))).toEqual([]);
  });
});
