import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SoundingNote } from '../score/query';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { scoreFrom } from '../test/shorthand';
import { soundingNotes } from '../score/query';
import type { CostModel } from './cost';
import { explainFinger } from './explain';
import { fingerWithFigures } from './figures';
import { eventsOf, gripsFor, type Finger, type Grip, type Hand } from './grips';
import { bestPath, costsOf, fingerLine, type FingeringSettings } from './solve';
import { spansFor } from './spans';

/** Eighth notes, or chords, from MIDI numbers. */
const line = (events: readonly (number | readonly number[])[], each = Q / 2): SoundingNote[] =>
  events.flatMap((event, i) =>
    (typeof event === 'number' ? [event] : event).map((midi, j) => ({
      id: `${i}.${j}`,
      written: [`${i}.${j}`],
      onset: i * each,
      duration: each,
      pitch: { step: 'C' as const, alter: 0, octave: 4 },
      midi,
      staff: 1,
      voice: 1,
      articulations: [],
      slurStop: false,
    })),
  );

const settings = (hand: Hand, change: Partial<FingeringSettings> = {}): FingeringSettings => ({
  hand,
  reach: 14,
  locks: new Map(),
  resets: new Set(),
  beat: Q,
  steadiness: 1,
  ...change,
});

const fingers = (events: readonly (number | readonly number[])[], hand: Hand): string => {
  const notes = line(events);
  const { fingers: found } = fingerLine(notes, settings(hand));
  return notes.map((n) => found.get(n.id)).join('');
};

const scale = (tonic: number): number[] => [0, 2, 4, 5, 7, 9, 11, 12].map((step) => tonic + step);

describe('standard fingerings', () => {
  it('five fingers on five keys, both hands', () => {
    expect(fingers([60, 62, 64, 65, 67, 65, 64, 62, 60], 'right')).toBe('123454321');
    expect(fingers([48, 50, 52, 53, 55, 53, 52, 50, 48], 'left')).toBe('543212345');
  });
  it.each([
    ['C', 60, '12312345'],
    ['D', 62, '12312345'],
    ['E', 64, '12312345'],
    ['F', 65, '12341234'],
    ['A', 57, '12312345'],
    ['B', 59, '12312345'],
  ])('%s major, right hand, one octave up', (_name, tonic, expected) => {
    expect(fingers(scale(tonic), 'right')).toBe(expected);
  });
  it.each([
    ['C', 48],
    ['D', 50],
    ['E', 52],
    ['F', 53],
    ['G', 55],
    ['A', 45],
  ])('%s major, left hand, one octave up', (_name, tonic) => {
    expect(fingers(scale(tonic), 'left')).toBe('54321321');
  });
  it('triads in every inversion, octaves and open fifths', () => {
    expect(fingers([[60, 64, 67]], 'right')).toBe('135');
    expect(fingers([[64, 67, 72]], 'right')).toBe('125');
    expect(fingers([[67, 72, 76]], 'right')).toBe('135');
    expect(fingers([[48, 52, 55]], 'left')).toBe('531');
    expect(fingers([[52, 55, 60]], 'left')).toBe('531');
    expect(fingers([[55, 60, 64]], 'left')).toBe('521');
    expect(fingers([[60, 72]], 'right')).toBe('15');
    expect(fingers([[48, 55]], 'left')).toBe('51');
  });
  it('block chords keep their shapes from one to the next', () => {
    expect(
      fingers(
        [
          [48, 52, 55],
          [48, 53, 57],
          [47, 50, 55],
          [48, 52, 55],
        ],
        'left',
      ),
    ).toBe('531521531531');
  });
  it('a broken chord lies under a still hand', () => {
    expect(fingers([48, 55, 52, 55, 48, 55, 52, 55], 'left')).toBe('51315131');
  });
});

describe('the best path', () => {
  const model: CostModel = { spans: spansFor(14), steadiness: 1 };
  const cost = (events: ReturnType<typeof eventsOf>, path: readonly Grip[]): number =>
    costsOf(events, path, model).reduce((a, b) => a + b, 0);
  const everyPath = (grips: readonly Grip[][]): Grip[][] =>
    grips.reduce<Grip[][]>((paths, here) => paths.flatMap((p) => here.map((g) => [...p, g])), [[]]);

  it('law: is as cheap as the cheapest of all fingerings', () => {
    const event = fc.oneof(
      { weight: 4, arbitrary: fc.integer({ min: 55, max: 76 }) },
      {
        weight: 1,
        arbitrary: fc.uniqueArray(fc.integer({ min: 55, max: 70 }), { minLength: 2, maxLength: 3 }),
      },
    );
    fc.assert(
      fc.property(
        fc.array(event, { minLength: 1, maxLength: 5 }),
        fc.constantFrom<Hand>('right', 'left'),
        (list, hand) => {
          const events = eventsOf(line(list), hand, new Set(), Q);
          const grips = events.map((e) => gripsFor(e, new Map()));
          const exhaustive = Math.min(...everyPath(grips).map((path) => cost(events, path)));
          expect(cost(events, bestPath(events, grips, model))).toBeCloseTo(exhaustive, 8);
        },
      ),
      { numRuns: 120 },
    );
  });

  it('law: every note has a finger, locks hold, and a lock never makes the line cheaper', () => {
    const notes = fc.array(fc.integer({ min: 40, max: 84 }), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(notes, fc.nat(11), fc.integer({ min: 1, max: 5 }), (list, at, finger) => {
        const played = line(list);
        const free = fingerLine(played, settings('right'));
        expect(free.fingers.size).toBe(played.length);
        const id = played[at % played.length]!.id;
        const locked = fingerLine(played, settings('right', { locks: new Map([[id, finger as Finger]]) }));
        expect(locked.fingers.get(id)).toBe(finger);
        expect(locked.cost).toBeGreaterThanOrEqual(free.cost - 1e-9);
      }),
    );
  });

  it('finds an answer where locks cross, and for more keys than fingers', () => {
    const crossed = fingerLine(
      line([[60, 64]]),
      settings('right', {
        locks: new Map<string, Finger>([
          ['0.0', 4],
          ['0.1', 2],
        ]),
      }),
    );
    expect([...crossed.fingers.values()]).toEqual([4, 2]);
    expect(fingerLine(line([[48, 50, 52, 53, 55, 57]]), settings('left')).fingers.size).toBe(6);
    expect(fingerLine([], settings('left')).fingers.size).toBe(0);
  });

  it('keeps the finger of a key that is held while others move', () => {
    const held = { ...line([60])[0]!, id: 'held', duration: 4 * Q };
    const moving = line([67, 65, 64, 62]).map((n) => ({ ...n, onset: n.onset + Q }));
    const { fingers: found } = fingerLine([held, ...moving], settings('right'));
    expect(found.get('held')).toBe(1);
    expect(moving.map((n) => found.get(n.id))).not.toContain(1);
  });

  it('moves more freely after a rest', () => {
    const notes = line([72, 60]);
    const later = [notes[0]!, { ...notes[1]!, onset: 4 * Q }];
    expect(fingerLine(later, settings('right')).cost).toBeLessThan(fingerLine(notes, settings('right')).cost);
  });

  it('does not stretch a small hand further than it must', () => {
    const wide: readonly number[] = [60, 74];
    const cost14 = fingerLine(line([wide]), settings('right', { reach: 14 })).cost;
    const cost10 = fingerLine(line([wide]), settings('right', { reach: 10 })).cost;
    expect(cost10).toBeGreaterThan(cost14 + 10);
  });
});

describe('figures', () => {
  const score = scoreFrom({
    key: 'C',
    time: { beats: 4, beatType: 4 },
    right:
      'C4:1 D4:1 E4:1 G4:1 | A4:2 G4:2 | C4:1 D4:1 E4:1 G4:1 | A4:1 G4:1 E4:2 | C4:1 D4:1 E4:1 G4:1 | A4:4',
  });
  const notes = soundingNotes(score.parts[0]!.notes);
  const inMeasure = (index: number, found: ReadonlyMap<string, Finger>): string =>
    notes
      .filter(
        (n) => n.onset >= score.measures[index]!.start && n.onset < score.measures[index]!.start + 4 * Q,
      )
      .map((n) => found.get(n.id))
      .join('');

  it('that come again are fingered alike', () => {
    const { fingering } = fingerWithFigures(notes, score.measures, settings('right'));
    expect(inMeasure(2, fingering.fingers)).toBe(inMeasure(0, fingering.fingers));
    expect(inMeasure(4, fingering.fingers)).toBe(inMeasure(0, fingering.fingers));
  });
  it('follow what the teacher decided in one of them', () => {
    const second = notes.find((n) => n.onset === score.measures[2]!.start)!;
    const locks = new Map<string, Finger>([[second.id, 2]]);
    const { fingering } = fingerWithFigures(notes, score.measures, settings('right', { locks }));
    expect(inMeasure(2, fingering.fingers)[0]).toBe('2');
    expect(inMeasure(0, fingering.fingers)).toBe(inMeasure(2, fingering.fingers));
  });
});

describe('reasons', () => {
  it('name what the next best finger would cost', () => {
    const notes = line([60, 62, 64, 65, 67]);
    const solved = fingerLine(notes, settings('right'));
    const reason = explainFinger(notes, settings('right'), solved, '3.0')!;
    expect(reason.finger).toBe(4);
    expect(reason.dearer).toBeGreaterThan(0);
    expect(reason.text).toMatch(/^4 on C4/);
  });
  it('speak of the thumb on a black key where that is what would happen', () => {
    const notes = line([63]); // E flat alone: any finger but the thumb
    const only = settings('right', { locks: new Map() });
    const solved = fingerLine(notes, only);
    expect(solved.fingers.get('0.0')).not.toBe(1);
  });
  it('are silent about notes that are not there', () => {
    const notes = line([60]);
    expect(
      explainFinger(notes, settings('right'), fingerLine(notes, settings('right')), 'nowhere'),
    ).toBeUndefined();
  });
});
