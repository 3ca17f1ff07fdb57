import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SoundingNote } from '../score/query';
import { TICKS_PER_QUARTER as Q } from '../score/ticks';
import { keysLine } from '../test/keysLine';
import { scoreFrom } from '../test/shorthand';
import { soundingNotes } from '../score/query';
import type { CostModel } from './cost';
import { alternativesIn } from './alternatives';
import { conventionsOf } from './private/conventions';
import { explainFinger } from './explain';
import { fingerWithFigures } from './figures';
import { eventsOf, type Hand } from './events';
import { gripsFor, type Finger, type Grip } from './grips';
import { positionsOf, positionText } from './positions';
import { bestPath, costsOf, fingerLine, total, type FingeringSettings } from './solve';
import { spansFor } from './private/spans';

const line = (events: readonly (number | readonly number[])[]): SoundingNote[] =>
  keysLine(events, 'right').notes;

const settings = (hand: Hand, change: Partial<FingeringSettings> = {}): FingeringSettings =>
  keysLine([], hand, change).settings;

const fingers = (events: readonly (number | readonly number[])[], hand: Hand): string => {
  const notes = line(events);
  const { fingers: found } = fingerLine(notes, settings(hand));
  return notes.map((n) => found.get(n.id)).join('');
};

describe('chords and figures', () => {
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
  const modelFor = (reach: number): CostModel => ({ spans: spansFor(reach), reach, steadiness: 1 });
  const everyPath = (grips: readonly (readonly Grip[])[]): Grip[][] =>
    grips.reduce<Grip[][]>((paths, here) => paths.flatMap((p) => here.map((g) => [...p, g])), [[]]);

  /** A few strokes with notes held on, rests, repetitions and chords of up to five keys. */
  const music = fc
    .array(
      fc.record({
        keys: fc.oneof(
          { weight: 5, arbitrary: fc.integer({ min: 55, max: 76 }).map((k) => [k]) },
          {
            weight: 2,
            arbitrary: fc.uniqueArray(fc.integer({ min: 58, max: 72 }), { minLength: 2, maxLength: 5 }),
          },
        ),
        duration: fc.constantFrom(Q / 4, Q / 2, Q, 2 * Q),
        gap: fc.constantFrom(Q / 4, Q / 2, Q / 2, Q),
        staccato: fc.boolean(),
      }),
      { minLength: 1, maxLength: 5 },
    )
    .map((strokes) => {
      let onset = 0;
      return strokes.flatMap(({ keys, duration, gap, staccato }, i) => {
        const at = onset;
        onset += gap;
        return line([keys]).map((n, j) => ({
          ...n,
          id: `${i}.${j}`,
          onset: at,
          duration,
          articulations: staccato ? (['staccato'] as const) : [],
        }));
      });
    });

  it('law: is as cheap as the cheapest of all fingerings', () => {
    fc.assert(
      fc.property(
        music,
        fc.constantFrom<Hand>('right', 'left'),
        fc.constantFrom(10, 14, 16),
        (notes, hand, reach) => {
          const events = eventsOf(notes, settings(hand, { reach }));
          const grips = events.map((e) => gripsFor(e, new Map()));
          fc.pre(grips.reduce((product, g) => product * g.length, 1) < 6_000);
          const model = { ...modelFor(reach), conventions: conventionsOf(events, hand) };
          const cost = (path: readonly Grip[]): number => total(costsOf(events, path, model));
          const exhaustive = Math.min(...everyPath(grips).map(cost));
          expect(cost(bestPath(events, grips, model))).toBeCloseTo(exhaustive, 8);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('law: the phrases of a line are solved as if they stood alone, and their costs add up', () => {
    fc.assert(
      fc.property(music, music, (first, second) => {
        const later = second.map((n) => ({ ...n, id: `b${n.id}`, onset: n.onset + 40 * Q }));
        const [a, b, both] = [first, later, [...first, ...later]].map((n) =>
          fingerLine(n, settings('right')),
        );
        expect(both!.cost).toBeCloseTo(a!.cost + b!.cost, 8);
        expect([...both!.fingers]).toEqual([...a!.fingers, ...b!.fingers]);
      }),
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

  it('one key in two voices has one finger', () => {
    const twice = line([[60, 60, 64]]);
    const { fingers: found } = fingerLine(twice, settings('right'));
    expect(twice.map((n) => found.get(n.id))).toEqual([1, 1, 3]);
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
  it('are fingered alike on other keys that lie alike', () => {
    const moved = scoreFrom({
      key: 'C',
      time: { beats: 4, beatType: 4 },
      right: 'C5:1 E5:1 D5:1 r:1 | F5:1 A5:1 G5:1 r:1 | G5:1 B5:1 A5:1 r:1 | C5:1 E5:1 D5:1 r:1',
    });
    const own = soundingNotes(moved.parts[0]!.notes);
    const locks = new Map<string, Finger>([
      [own[0]!.id, 2],
      [own[1]!.id, 4],
    ]);
    const { fingering } = fingerWithFigures(own, moved.measures, settings('right', { locks }));
    expect(own.map((n) => fingering.fingers.get(n.id)).join('')).toBe('243243243243');
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
  /** The reason for one note of a line of eighths, in whole. */
  const why = (keys: readonly (number | readonly number[])[], id: string, hand: Hand = 'right'): string => {
    const { notes, settings: own } = keysLine(keys, hand);
    return explainFinger(notes, fingerLine(notes, own), id)!.text;
  };
  it.each<[string, readonly (number | readonly number[])[], string, RegExp]>([
    [
      'a scale',
      [60, 62, 64, 65, 67, 69, 71, 72],
      '3.0',
      /^1 on F4, the standard fingering of the scale of C major\.$/,
    ],
    ['a triad', [[64, 67, 72]], '0.1', /^2 on G4, because this is the usual shape of the chord\.$/],
    ['what follows', [67, 65, 64, 62, 60], '0.0', /^5 on G4, to avoid a thumb under for the/],
    ['a black key', [60, 61, 63, 66], '3.0', /^5 on F♯4, /],
    [
      'a broken chord',
      [60, 64, 67, 67, 64, 60],
      '3.0',
      /^5 on G4, the standard fingering of the block chord\.$/,
    ],
  ])('speak of %s', (_name, keys, id, text) => {
    expect(why(keys, id)).toMatch(text);
  });
  it('law: name what the best other finger costs more, never less than nothing', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 55, max: 79 }), { minLength: 2, maxLength: 9 }), (keys) => {
        const { notes, settings: own } = keysLine(keys, 'right');
        const solved = fingerLine(notes, own);
        for (const note of notes) {
          const reason = explainFinger(notes, solved, note.id)!;
          // A key that is struck several times in a row has one finger.
          const strokes = notes.filter((n) => {
            const [from, to] = [notes.indexOf(n), notes.indexOf(note)].sort((a, b) => a - b);
            return notes.slice(from, to! + 1).every((m) => m.midi === note.midi);
          });
          const locks = new Map(strokes.map((n) => [n.id, reason.other]));
          expect(reason.dearer).toBeCloseTo(fingerLine(notes, { ...own, locks }).cost - solved.cost, 8);
          expect(reason.dearer).toBeGreaterThanOrEqual(-1e-9);
          expect(reason.text).toMatch(/^[1-5] on [A-G][♯♭]?\d.*\.$/);
        }
      }),
      { numRuns: 60 },
    );
  });
  it('are silent about notes that are not there', () => {
    const { notes, settings: own } = keysLine([60], 'right');
    expect(explainFinger(notes, fingerLine(notes, own), 'nowhere')).toBeUndefined();
  });
});

describe('alternatives', () => {
  const notes = keysLine([60, 64, 67, 69, 67, 64, 62, 60], 'right');
  const solved = fingerLine(notes.notes, notes.settings);
  it('are the proposal and up to two others, each with a name of its own', () => {
    const list = alternativesIn(solved, 0, 4 * Q);
    expect(list.length).toBeGreaterThan(1);
    expect(list.length).toBeLessThanOrEqual(3);
    expect([...list[0]!.fingers]).toEqual([...solved.fingers]);
    expect(new Set(list.map((a) => [...a.fingers.values()].join(''))).size).toBe(list.length);
    expect(new Set(list.map((a) => a.name)).size).toBe(list.length);
    expect(list.every((a) => a.name.length > 0)).toBe(true);
  });
  it('cost what the line costs with their fingers locked', () => {
    for (const { fingers: locks, dearer } of alternativesIn(solved, 0, 4 * Q).slice(1))
      expect(fingerLine(notes.notes, { ...notes.settings, locks }).cost - solved.cost).toBeCloseTo(dearer, 8);
  });
});

describe('an accompaniment', () => {
  const C3 = 48;
  /** Fingers of one event after another, from the lowest key. */
  const fingersOf = (
    keys: readonly (number | readonly number[])[],
    hand: Hand,
    change: Partial<FingeringSettings> = {},
    each?: number,
  ): string => {
    const { notes, settings } = keysLine(keys, hand, change, each);
    const { fingers } = fingerLine(notes, settings);
    return keys
      .map((key, i) =>
        (typeof key === 'number' ? [key] : key).map((_, j) => fingers.get(`${i}.${j}`)).join('-'),
      )
      .join(' ');
  };
  const F2 = C3 - 7;
  const G2 = C3 - 5;
  it.each([
    ['root and fifth by 5 and 1', [C3, C3 + 7, F2, C3, G2, 50, C3, C3 + 7], '5 1 5 1 5 1 5 1'],
    ['and on black keys too', [46, 53, 51, 58, 44, 51, 46, 53], '5 1 5 1 5 1 5 1'],
    ['by 5 2 1 where the octave follows', [C3, 55, 60, 55, F2, 48, 53, 48], '5 2 1 2 5 2 1 2'],
    ['and the tenth', [C3, 55, 64, 55, F2, 48, 57, 48], '5 2 1 2 5 2 1 2'],
    ['and the seventh under the tenth', [45, 55, 61, 45, 55, 61, 38, 45, 54], '5 2 1 5 2 1 5 2 1'],
    ['broken triads by 5 3 1', [C3, 52, 55, F2, 45, 48, G2, 47, 50], '5 3 1 5 3 1 5 3 1'],
    ['octaves by 5 and 1 from the first one on', [36, 48, 41, 53, 43, 55, 36, 48], '5 1 5 1 5 1 5 1'],
  ] as const)('takes %s, however still the hand should be', (_, keys, fingers) => {
    expect(fingersOf(keys, 'left')).toBe(fingers);
    expect(fingersOf(keys, 'left', { steadiness: 2.2 })).toBe(fingers);
  });
  it('takes figures by the groups of a time signature in fives and sevens, each by its own chord', () => {
    const fives = [43, 50, 47, 36, 43, 40, 43, 38, 45, 42, 40, 47, 43, 47];
    // Quarters in the three beats, eighths in the two.
    const onsets = [0, 1, 2, 3, 3.5, 4, 4.5, 5, 6, 7, 8, 8.5, 9, 9.5].map((q) => q * Q);
    const { notes, settings: plain } = keysLine(fives, 'left');
    const timed = notes.map((n, i) => ({
      ...n,
      onset: onsets[i]!,
      duration: (onsets[i + 1] ?? 10 * Q) - onsets[i]!,
    }));
    const groups = new Set([0, 3, 5, 8].map((q) => q * Q));
    const { fingers } = fingerLine(timed, { ...plain, groups });
    expect(timed.map((n) => fingers.get(n.id)).join(' ')).toBe('5 1 3 5 1 3 1 5 1 3 5 1 3 1');
    // The line steps up into the second chord, and turns in it.
    const sevens = [40, 47, 43, 47, 40, 47, 43, 45, 52, 48, 52, 45, 52, 48];
    const inSevens = { groups: new Set([0, 4, 7, 11].map((n) => (n * Q) / 2)) };
    expect(fingersOf(sevens, 'left', inSevens, Q / 2)).toBe('5 1 3 1 5 1 3 5 1 3 1 5 1 3');
    // A tune that goes on the same way over a group is no figure of it.
    const run = [45, C3, 52, 57, 60, 64];
    const alone = keysLine(run, 'left', { groups: new Set([0, 3 * Q]) });
    expect(fingerLine(alone.notes, alone.settings).fingers.get('3.0')).not.toBe(5);
  });
  it('takes the low note with 5 and its chord as it lies', () => {
    expect(
      fingersOf([C3, [52, 55], [52, 55], F2, [45, 48], [45, 48], 36, [52, 55, 60], [52, 55, 60]], 'left'),
    ).toBe('5 3-1 3-1 5 3-1 3-1 5 5-3-1 5-3-1');
  });
  it('keeps a chord as it lies to its last stroke, though a broken one follows far below', () => {
    const [chord, low] = [[53, 57], 50] as const;
    expect(fingersOf([low, chord, chord, low, chord, chord, 45, 52, 55, 45, 52, 55], 'left', {}, Q / 2)).toBe(
      '5 3-1 3-1 5 3-1 3-1 5 2 1 5 2 1',
    );
  });
  it('begins the next chord with its own finger on the key that it has left', () => {
    const [F3, C4, A3] = [53, 60, 57];
    const keys = [F3, C4, A3, C4, C4, 67, 64, 67, F3, C4, A3, C4];
    expect(fingersOf(keys, 'left')).toBe('5 1 3 1 5 1 3 1 5 1 3 1');
  });
  it('keeps a five-finger position over phrases where the hand should stay', () => {
    const roots = [C3, 53, 55, C3, 53, 55, C3, C3];
    const { notes, settings } = keysLine(roots, 'left', { steadiness: 2.2, resets: new Set([4 * Q]) }, Q);
    const { fingers } = fingerWithFigures(notes, [], settings).fingering;
    expect(notes.map((n) => fingers.get(n.id)).join(' ')).toBe('5 2 1 5 2 1 5 5');
  });
  it('has the thumb in a fourth', () => {
    expect(fingersOf([[55, 60]], 'left')).toBe('4-1');
  });
  it('goes from chord to chord by their shapes', () => {
    const chords = [
      [C3, 52, 55],
      [C3, 53, 57],
      [47, 50, 55],
      [C3, 52, 55],
    ];
    expect(fingersOf(chords, 'left')).toBe('5-3-1 5-2-1 5-3-1 5-3-1');
  });
  it('keeps the fingers of what is struck again slowly, whichever they are', () => {
    expect(fingersOf([60, 62, 64, 65, 65, 65, 65, 64], 'right', {}, Q)).toBe('1 2 3 4 4 4 4 3');
    const chords = [[C3, 52, 55], [C3, 52, 55], [C3, 52, 55], C3];
    expect(fingersOf(chords, 'left', {}, Q)).toBe('5-3-1 5-3-1 5-3-1 5');
  });
  it('begins anew with the finger that is decided in the middle of a repetition', () => {
    const locks = new Map<string, Finger>([['2.0', 1]]);
    expect(fingersOf([67, 67, 67, 67, 69], 'right', { locks }, Q)).toMatch(/^\d \d 1 1 2$/);
  });
  it.each([
    [[67, 67, 67, 67, 69, 69, 69, 69], '4 3 2 1 4 3 2 1'],
    [[67, 67, 67, 69, 69, 69], '3 2 1 3 2 1'],
  ])('changes fingers towards the thumb on a key that is struck again quickly', (keys, fingers) => {
    expect(fingersOf(keys, 'right', { tempo: 110 }, Q / 4)).toBe(fingers);
  });
  it('never has a chord in the way of the note that follows', () => {
    const [chord, next] = fingersOf([[64, 67, 72], [64, 67, 72], 74, 76, 74, 72], 'right', {}, Q)
      .split(' ')
      .slice(1, 3);
    const top = Number(chord!.split('-').at(-1));
    expect(top < Number(next) || next === '1').toBe(true);
  });
  it('takes an arpeggio as one run and no figure', () => {
    expect(fingersOf([60, 64, 67, 72, 76, 79, 84], 'right')).toBe('1 2 3 1 2 3 5');
  });
});

describe('positions', () => {
  const positions = (keys: readonly number[], hand: Hand): string[] => {
    const { notes, settings: own } = keysLine(keys, hand);
    return positionsOf(notes, fingerLine(notes, own).fingers, hand).map(positionText);
  };
  it('are named as teachers name them', () => {
    expect(positions([60, 62, 64, 65, 67, 64, 60], 'right')).toEqual(['C position']);
    expect(positions([48, 50, 52, 53, 55, 52, 48], 'left')).toEqual(['C position']);
    expect(positions([67, 69, 71, 74, 71, 67], 'right')).toEqual(['G position']);
  });
  it('on black keys are named by the fingers that lie there, from two on', () => {
    const blackened = (onBlack: readonly (1 | 2 | 3 | 4 | 5)[]): string =>
      positionText({
        hand: 'right',
        onset: 0,
        notes: [],
        kind: 'five fingers',
        name: 'B',
        by: 'start',
        onBlack,
      });
    expect(blackened([2, 3, 5])).toBe('B position, 2 3 5 on black keys');
    expect(blackened([5])).toBe('B position');
    const { notes, settings: own } = keysLine([66, 68, 70, 68, 66], 'right');
    const [first] = positionsOf(notes, fingerLine(notes, own).fingers, 'right');
    expect(first!.onBlack).toHaveLength(3);
    expect(positions([62, 64, 66, 67, 69, 66, 62], 'right')).toEqual(['D position']);
  });
  it('of chords change with the whole chord', () => {
    const { notes, settings: own } = keysLine(
      [
        [48, 52, 55],
        [52, 55, 60],
        [47, 50, 55],
      ],
      'left',
    );
    expect(positionsOf(notes, fingerLine(notes, own).fingers, 'left').map((p) => [p.name, p.kind])).toEqual([
      ['C', 'five fingers'],
      ['E', 'extended'],
      ['B', 'extended'],
    ]);
  });
  it('change where the thumb passes under and back over it', () => {
    expect(positions([60, 62, 64, 65, 67, 69, 71, 72, 71, 69, 67, 65, 64, 62, 60], 'right')).toEqual([
      'C position',
      'thumb under, F position',
      'over the thumb, C position',
    ]);
  });
});
