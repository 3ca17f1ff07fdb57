import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom, type Line } from '../test/shorthand';
import { perform } from './perform';
import { clicksAlone, programOf, type Program, type ProgramSettings } from './program';

const four = { beats: 4, beatType: 4 };
const line: Line = {
  key: 'C',
  time: four,
  tempo: 60,
  right: 'C4:1 D4:1 E4:2 | F4:4',
  left: 'C3:4 | G2:2 G2:2',
};
function program(change: Partial<ProgramSettings> = {}, of: Line = line, pedals: number[] = []): Program {
  const score = scoreFrom(of);
  const performance = perform({
    ...score,
    pedals: pedals.map((onset, i) => ({
      onset: onset * Q,
      type: i === 0 ? 'start' : i === pedals.length - 1 ? 'stop' : 'change',
    })),
  });
  return programOf(performance, score.measures, {
    from: 0,
    to: performance.end,
    hands: 'both',
    share: 1,
    click: false,
    countIn: false,
    ...change,
  });
}
const rounded = (n: number): number => Math.round(n * 1000) / 1000;
const times = ({ notes }: Program): string[] =>
  notes.map((n) => `${n.midi}@${rounded(n.at)}-${rounded(n.until)}`);

describe('a program', () => {
  it('has every note of its stretch in seconds, a key that is struck again let go before', () => {
    expect(times(program())).toEqual([
      '48@0-4',
      '60@0-1',
      '62@1-2',
      '64@2-4',
      '43@4-5.98',
      '65@4-8',
      '43@6-8',
    ]);
    expect(times(program({ from: 4 * Q, to: 6 * Q }))).toEqual(['43@0-2', '65@0-2']);
  });
  it('has one hand or both, and any share of the tempo', () => {
    expect(times(program({ hands: 'left' }))).toEqual(['48@0-4', '43@4-5.98', '43@6-8']);
    expect(times(program({ hands: 'right', share: 0.5 }))[1]).toBe('62@2-4');
    expect(program({ share: 1.2 }).ends).toBeCloseTo(8 / 1.2, 6);
  });
  it('holds what the pedal holds until it comes up', () => {
    expect(times(program({}, line, [0, 2, 4])).slice(0, 4)).toEqual(['48@0-4', '60@0-2', '62@1-2', '64@2-4']);
  });
  it('clicks on beats, the first of a measure and of its half apart', () => {
    const { clicks } = program({ click: true });
    expect(clicks.slice(0, 5).map((c) => [c.at, c.weight])).toEqual([
      [0, 'measure'],
      [1, 'beat'],
      [2, 'group'],
      [3, 'beat'],
      [4, 'measure'],
    ]);
  });
  it('clicks the second group of five and of seven beats apart', () => {
    const grouped = (beats: number): string[] =>
      program(
        { click: true },
        {
          ...line,
          time: { beats, beatType: 4 },
          right: `C5:${beats - 1} D5:1`,
          left: `C3:${beats - 1} C3:1`,
          chords: 'C',
        },
      ).clicks.map((c) => c.weight);
    expect(grouped(5)).toEqual(['measure', 'beat', 'beat', 'group', 'beat']);
    expect(grouped(7)).toEqual(['measure', 'beat', 'beat', 'beat', 'group', 'beat', 'beat']);
  });
  it('says the counts at their places, soft where nothing is struck, and with room until the next', () => {
    const counts = [
      {
        measure: 0,
        counts: [
          { at: 0, say: '1', kind: 'onset' as const },
          { at: Q, say: '2', kind: 'held' as const },
          { at: 1.5 * Q, say: '&', kind: 'onset' as const },
        ],
      },
    ];
    const { words } = program({ counts });
    expect(words.map((w) => [w.at, w.text, w.isSoft, w.room])).toEqual([
      [0, '1', false, 1],
      [1, '2', true, 0.5],
      [1.5, '&', false, 0.5],
    ]);
    expect(
      program({ counts, countIn: true })
        .words.slice(0, 4)
        .map((w) => w.text),
    ).toEqual(['1', '2', '3', '4']);
    expect(program({}).words).toEqual([]);
  });
  it('counts a measure before, and into a pickup', () => {
    const whole = program({ countIn: true });
    expect([whole.begins, whole.clicks.map((c) => c.at)]).toEqual([4, [0, 1, 2, 3]]);
    const pickup = program(
      { countIn: true },
      { ...line, pickup: 1, right: 'G4:1 | C4:4', left: 'r:1 | C3:4' },
    );
    expect([pickup.begins, pickup.clicks.map((c) => c.weight)]).toEqual([
      7,
      ['measure', 'beat', 'group', 'beat', 'measure', 'beat', 'group'],
    ]);
    expect(pickup.notes[0]!.at).toBe(7);
    expect(pickup.tickAt(3)).toBe(0);
    expect(pickup.tickAt(8)).toBe(Q);
  });
  it('law: ticks and seconds agree wherever it begins, however fast', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 7 }),
        fc.double({ min: 0.3, max: 1.2, noNaN: true }),
        fc.boolean(),
        (from, share, countIn) => {
          const own = program({ from: from * Q, share, countIn });
          for (const note of own.notes) {
            expect(note.until).toBeGreaterThan(note.at);
            const tick = own.tickAt(note.at);
            expect(Math.abs(tick - Math.round(tick))).toBeLessThan(0.001);
            expect(own.tickAt(note.at)).toBeGreaterThanOrEqual(from * Q - 0.01);
          }
          expect(own.notes.map((n) => n.at)).toEqual([...own.notes.map((n) => n.at)].sort((a, b) => a - b));
        },
      ),
    );
  });
});

describe('clicks alone', () => {
  const weights = (beats: number, beatType: number) =>
    clicksAlone({ beats, beatType }, 60)
      .clicks.map(({ weight }) => weight[0])
      .join('');

  it('stress the measure and its groups', () => {
    expect(weights(2, 4)).toBe('mb');
    expect(weights(3, 4)).toBe('mbb');
    expect(weights(4, 4)).toBe('mbgb');
    expect(weights(5, 4)).toBe('mbbgb');
    expect(weights(7, 4)).toBe('mbbbgbb');
    expect(weights(6, 8)).toBe('mb');
    expect(weights(12, 8)).toBe('mbgb');
  });
  it('come at the tempo, and the loop is one measure', () => {
    const { clicks, ends, tickAt, secondsAt } = clicksAlone({ beats: 6, beatType: 8 }, 40);
    expect(clicks.map((c) => c.at)).toEqual([0, 1.5]);
    expect(ends).toBe(3);
    expect(tickAt(1.5)).toBe(1.5 * Q);
    expect(secondsAt(3 * Q)).toBe(3);
  });
});
