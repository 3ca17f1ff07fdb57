import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chunksOf } from './chunks';
import { chunksIn, METHODS, planSchema, playedIn, proposedPlan, templateOf, type Plan } from './plan';
import { edited, planEditSchema, type PlanEdit } from './planEdits';
import { learnedIn, planState } from './progress';
import { chunksBy, GOAL, MUSIC, recorder } from '../test/lessonPiece';
import { firstTempo, ladder } from './private/tempi';

const sizes = (firstSeen: number[], phrases: [number, number][]) =>
  chunksOf({
    firstSeen,
    phrases: phrases.map(([from, to]) => ({ section: 0, from, to })),
    sections: [{ label: 'A', from: 0, to: firstSeen.length - 1 }],
  }).map((c) => [c.from, c.to]);

describe('chunks', () => {
  it('are the phrases that are new: what comes again is learned where it first stands', () => {
    expect(chunksBy('front to back').map((c) => [c.from, c.to])).toEqual([
      [0, 3],
      [4, 7],
    ]);
  });
  it('of a phrase that is new in one measure are the half in which that is; else the phrase is whole', () => {
    expect(
      sizes(
        [0, 1, 2, 3, 0, 1, 2, 7],
        [
          [0, 3],
          [4, 7],
        ],
      ),
    ).toEqual([
      [0, 3],
      [6, 7],
    ]);
    expect(
      sizes(
        [0, 1, 2, 3, 4, 1, 2, 3],
        [
          [0, 3],
          [4, 7],
        ],
      ),
    ).toEqual([
      [0, 3],
      [4, 5],
    ]);
  });
  it('keep a phrase whole whose ends alone, or whose middle, come again', () => {
    // The last measure is the first one again, as songs close: the phrase is what is practised.
    expect(sizes([0, 1, 2, 0], [[0, 3]])).toEqual([[0, 3]]);
    expect(
      sizes(
        [0, 1, 2, 3, 4, 1, 2, 7],
        [
          [0, 3],
          [4, 7],
        ],
      ),
    ).toEqual([
      [0, 3],
      [4, 7],
    ]);
  });
  it('are never of one measure where another is beside it', () => {
    expect(
      sizes(
        [0, 1, 2, 3, 4],
        [
          [0, 2],
          [3, 3],
          [4, 4],
        ],
      ),
    ).toEqual([
      [0, 3],
      [3, 4],
    ]);
    expect(
      sizes(
        [0, 1],
        [
          [0, 0],
          [1, 1],
        ],
      ),
    ).toEqual([[0, 1]]);
  });
  it('are of two to four measures in any form, a pickup besides, and hold all that is new', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 9 }),
        fc.infiniteStream(fc.nat(6)),
        (lengths, again) => {
          const phrases = lengths.map((n, i): [number, number] => {
            const from = lengths.slice(0, i).reduce((a, b) => a + b, 0);
            return [from, from + n - 1];
          });
          const count = lengths.reduce((a, b) => a + b, 0);
          const firstSeen = Array.from({ length: count }, (_, i) =>
            i > 0 && again.next().value! < 2 ? 0 : i,
          );
          const chunks = sizes(firstSeen, phrases);
          for (const [from, to] of chunks) {
            expect(to! - from! + 1).toBeLessThanOrEqual(5);
            if (count > 1) expect(to! - from! + 1).toBeGreaterThanOrEqual(2);
          }
          // Cut at the boundaries of phrases, or in their middle: never at a measure that happens to be new.
          const ends = new Set(phrases.flatMap(([from, to]) => [from, to]));
          for (const [from, to] of chunks) expect(ends.has(from!) || ends.has(to!)).toBe(true);
          firstSeen.forEach((first, i) => {
            if (first === i) expect(chunks.some(([from, to]) => from! <= i && i <= to!)).toBe(true);
          });
        },
      ),
    );
  });
});

describe('a plan', () => {
  it('has nothing to join at the beginning, and the ladder up to the goal', () => {
    const [first, second] = chunksBy('front to back');
    expect(first!.steps.map((s) => s.id)).not.toContain('join');
    expect(second!.steps.map((s) => s.id)).toEqual([
      'hear',
      'right-counting',
      'right',
      'left',
      'both',
      'join',
      'ladder',
      'memory',
    ]);
    expect(second!.steps.find((s) => s.id === 'ladder')!.ladder.at(-1)).toBe(GOAL);
  });
  it('begins with the hardest chunk, or with both hands, by its method', () => {
    expect(chunksBy('hardest first').map((c) => c.from)).toEqual([4, 0]);
    expect(
      chunksBy('both hands from the start')[0]!.steps.every((s) => s.hand === null || s.hand === 'both'),
    ).toBe(true);
    expect(METHODS.every((m) => m.says.length > 40)).toBe(true);
  });
  it('makes a template of its fullest chunk', () => {
    expect(templateOf(proposedPlan(MUSIC, 'front to back')).map((s) => s.id)).toContain('join');
  });
  it('leaves out chunks that a version does not have', () => {
    const plan: Plan = { method: 'front to back', chunks: [{ from: 'i0', to: 'i1', name: null, steps: [] }] };
    expect(chunksIn(plan, MUSIC, GOAL)).toEqual([]);
  });
});

describe('tempi', () => {
  it('rise from a first slow one, slower where it is harder, to the goal and never above it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 300 }), fc.integer({ min: 0, max: 100 }), (goal, difficulty) => {
        const rungs = ladder(difficulty, goal);
        expect(rungs.at(-1)).toBe(goal);
        expect(rungs[0]).toBe(firstTempo(difficulty, goal));
        for (const [i, t] of rungs.entries()) {
          expect(t).toBeLessThanOrEqual(goal);
          if (i > 0) expect(t).toBeGreaterThan(rungs[i - 1]!);
          if (i > 0) expect(t / rungs[i - 1]!).toBeLessThan(1.25);
        }
        expect(firstTempo(difficulty + 10, goal)).toBeLessThanOrEqual(rungs[0]!);
      }),
    );
  });
  it('of a goal of 20 are 20, and none begins below 30 otherwise', () => {
    expect(ladder(30, 20)).toEqual([20]);
    expect([firstTempo(100, 40), firstTempo(25, 96)]).toEqual([30, 62]);
  });
});

describe('a plan that is changed', () => {
  const plan = proposedPlan(MUSIC, 'front to back');
  const after = (edit: PlanEdit, of = plan): Plan => {
    const change = edited(of, edit, MUSIC);
    if ('refused' in change) throw new Error(change.refused);
    return change.plan;
  };
  const places = (of: Plan) => of.chunks.map((c) => `${c.from}..${c.to}`);
  it('is split and joined again, and the second half has what it can be joined to', () => {
    const split = after({ do: 'split', chunk: 'm0..m3', before: 'm2' });
    expect(places(split)).toEqual(['m0..m1', 'm2..m3', 'm4..m7']);
    expect(split.chunks[1]!.steps.map((s) => s.id)).toContain('join');
    expect(places(after({ do: 'join', chunk: 'm0..m1' }, split))).toEqual(places(plan));
  });
  it('is split at a beat and joined there again', () => {
    const split = after({ do: 'split', chunk: 'm0..m3', before: 'm1', beat: 3 });
    expect(places(split)).toEqual(['m0..m1:2', 'm1:3..m3', 'm4..m7']);
    expect(split.chunks[1]!.steps.map((s) => s.id)).toContain('join');
    expect(chunksIn(split, MUSIC, GOAL).map((c) => [c.from, c.toBeat, c.fromBeat])).toEqual([
      [0, 2, undefined],
      [1, undefined, 3],
      [4, undefined, undefined],
    ]);
    const again = after({ do: 'split', chunk: 'm1:3..m3', before: 'm1', beat: 4 }, split);
    expect(places(again)).toEqual(['m0..m1:2', 'm1:3..m1:3', 'm1:4..m3', 'm4..m7']);
    expect(places(after({ do: 'join', chunk: 'm0..m1:2' }, split))).toEqual(places(plan));
    // A measure's first beat is the measure.
    expect(places(after({ do: 'split', chunk: 'm0..m3', before: 'm2', beat: 1 }))[1]).toBe('m2..m3');
  });
  it('has chunks added from one beat to another, of those that there are', () => {
    const add = (edit: Partial<PlanEdit>): string =>
      places(after({ do: 'add', at: 0, from: 'm2', to: 'm4', ...edit } as PlanEdit))[0]!;
    expect(add({ fromBeat: 2, toBeat: 3 })).toBe('m2:2..m4:3');
    expect(add({ fromBeat: 1, toBeat: 4 })).toBe('m2..m4');
    for (const edit of [
      { do: 'add', at: 0, from: 'm2', fromBeat: 5, to: 'm4' },
      { do: 'add', at: 0, from: 'm2', fromBeat: 3, to: 'm2', toBeat: 2 },
      { do: 'split', chunk: 'm0..m3', before: 'm1', beat: 7 },
      { do: 'split', chunk: 'm0..m3', before: 'm4', beat: 2 },
      { do: 'split', chunk: 'm0..m3', before: 'm0', beat: 1 },
    ] as const)
      expect(edited(plan, edit, MUSIC)).toHaveProperty('refused');
    // Forms send what was left empty as nothing.
    expect(
      planEditSchema.parse({ do: 'add', at: 0, from: 'm2', fromBeat: '', to: 'm4', toBeat: '3' }),
    ).toEqual({ do: 'add', at: 0, from: 'm2', fromBeat: undefined, to: 'm4', toBeat: 3 });
  });
  it('plays a chunk that is connected with the one that ends where it begins', () => {
    const chunks = chunksIn(after({ do: 'split', chunk: 'm0..m3', before: 'm1', beat: 3 }), MUSIC, GOAL);
    expect(playedIn('join', chunks[1]!, chunks).places).toEqual({ from: 0, to: 3 });
    expect(playedIn('both', chunks[1]!, chunks).places).toEqual({ from: 1, to: 3, fromBeat: 3 });
    expect(playedIn('join', chunks[0]!, chunks).places).toEqual({ from: 0, to: 1, toBeat: 2 });
  });
  it('is moved, dropped, added to, renamed; its steps are the teacher’s', () => {
    expect(places(after({ do: 'move', chunk: 'm0..m3', to: 1 }))).toEqual(['m4..m7', 'm0..m3']);
    expect(places(after({ do: 'drop', chunk: 'm0..m3' }))).toEqual(['m4..m7']);
    expect(places(after({ do: 'add', at: 0, from: 'm6', to: 'm9' }))[0]).toBe('m6..m9');
    expect(after({ do: 'name', chunk: 'm4..m7', name: 'The climb' }).chunks[1]!.name).toBe('The climb');
    const clapped = after({
      do: 'steps',
      chunk: 'm0..m3',
      steps: [{ id: 'own-1', name: 'Clap it', hand: null }],
    });
    expect(chunksIn(clapped, MUSIC, GOAL)[0]!.steps[0]).toMatchObject({ says: 'Clap it', ladder: [] });
    expect(places(after({ do: 'method', method: 'hardest first' }))[0]).toBe('m4..m7');
  });
  it('says why where it cannot be', () => {
    for (const edit of [
      { do: 'split', chunk: 'm0..m3', before: 'm0' },
      { do: 'join', chunk: 'm4..m7' },
      { do: 'add', at: 0, from: 'm3', to: 'm1' },
      { do: 'add', at: 0, from: 'm0', to: 'm3' },
      { do: 'drop', chunk: 'm8..m9' },
    ] as const)
      expect(edited(plan, edit, MUSIC)).toHaveProperty('refused');
  });
  it('stays one that can be kept, and loses no progress, whatever is done to it', () => {
    const edit = fc.oneof(
      fc.record({ do: fc.constant('move' as const), chunk: fc.nat(5), to: fc.nat(5) }),
      fc.record({ do: fc.constant('drop' as const), chunk: fc.nat(5) }),
      fc.record({ do: fc.constant('join' as const), chunk: fc.nat(5) }),
      fc.record({
        do: fc.constant('split' as const),
        chunk: fc.nat(5),
        before: fc.constantFrom(...MUSIC.ids),
        beat: fc.option(fc.integer({ min: 1, max: 5 }), { nil: undefined }),
      }),
      fc.record({
        do: fc.constant('add' as const),
        at: fc.nat(5),
        from: fc.constantFrom(...MUSIC.ids),
        fromBeat: fc.option(fc.integer({ min: 1, max: 5 }), { nil: undefined }),
        to: fc.constantFrom(...MUSIC.ids),
        toBeat: fc.option(fc.integer({ min: 1, max: 5 }), { nil: undefined }),
      }),
      fc.record({ do: fc.constant('method' as const), method: fc.constantFrom(...METHODS.map((m) => m.id)) }),
    );
    const did = recorder();
    const learned = learnedIn(MUSIC.ids, [
      did({ chunk: 'm0..m3', step: 'right' }),
      did({ chunk: 'm4..m7', step: 'left' }),
    ]);
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 12 }), (edits) => {
        let now = plan;
        for (const e of edits) {
          const at = 'chunk' in e ? now.chunks[e.chunk] : undefined;
          const named = at ? { ...e, chunk: `${at.from}..${at.to}` } : { ...e, chunk: 'm90..m91' };
          const change = edited(now, named as PlanEdit, MUSIC);
          if ('plan' in change) now = change.plan;
        }
        expect(planSchema.parse(now)).toEqual(now);
        for (const { chunk, steps } of planState(chunksIn(now, MUSIC, GOAL), learned))
          for (const step of steps)
            if (step.id === 'right') expect(!!step.done).toBe(chunk.to <= 3);
            else if (step.id === 'left') expect(!!step.done).toBe(chunk.from >= 4 && chunk.to <= 7);
      }),
    );
  });
});
