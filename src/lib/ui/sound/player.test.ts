/** The player on a clock of its own: what it hands to the audio graph, when, and that nothing drifts. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { perform } from '$core/performance/perform';
import { programOf } from '$core/performance/program';
import { scoreFrom } from '$core/test/shorthand';
import { Player, type Graph } from './player';

const song = scoreFrom({
  key: 'C',
  time: { beats: 3, beatType: 4 },
  tempo: 97,
  right: 'C5:1 D5:0.5 E5:0.5 F5:1 | G5:3 | A5:1 G5:1 F5:1',
  left: 'C3:3 | E3:3 | F3:3',
  chords: 'C | C | F',
});
const performance = perform(song, 'straight');
const program = (share = 1) =>
  programOf(performance, song.measures, {
    from: 0,
    to: performance.end,
    hands: 'both',
    share,
    click: true,
    countIn: true,
  });

/** A graph that writes down what it is handed, on a clock that the test moves. */
function fakeGraph() {
  const struck: { midi: number; from: number; handedAt: number }[] = [];
  const clicked: number[] = [];
  const clock = { now: 0 };
  const piano = {
    node: undefined as never,
    strike: ({ midi }: { midi: number }, from: number) =>
      void struck.push({ midi, from, handedAt: clock.now }),
    silence: () => undefined,
  };
  const graph = {
    tone: { start: async () => undefined },
    context: {
      get currentTime() {
        return clock.now;
      },
      state: 'running',
    },
    stand: piano,
    piano,
    grand: async () => ({ ...piano, node: { toDestination: () => undefined } }),
    clicks: { node: undefined, click: (_: unknown, at: number) => void clicked.push(at) },
    voice: { say: () => undefined, silence: () => undefined },
  } as unknown as Graph;
  return { graph, clock, struck, clicked };
}

describe('the player', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  async function playing(loops: boolean, share = 1) {
    const fake = fakeGraph();
    const events = { onend: vi.fn(), onsilence: vi.fn() };
    const player = new Player(events, async () => fake.graph);
    const played = program(share);
    await player.play({ program: played, loops });
    const zero = fake.clock.now + 0.03;
    /** Lets time pass, unevenly, as a busy page does. */
    const pass = (seconds: number): void => {
      let step = 0;
      for (const end = fake.clock.now + seconds; fake.clock.now < end;) {
        step = (step + 37) % 150;
        fake.clock.now = Math.min(end, fake.clock.now + (20 + step) / 1000);
        vi.advanceTimersByTime(50);
      }
    };
    return { ...fake, events, player, played, zero, pass };
  }

  it('hands every stroke over before its time, and ends', async () => {
    const { struck, clicked, events, played, zero, pass } = await playing(false);
    pass(played.ends + 1);
    expect(struck.map((s) => s.midi)).toEqual(played.notes.map((n) => n.midi));
    struck.forEach((s, i) => {
      expect(s.from).toBeCloseTo(zero + played.notes[i]!.at, 9);
      expect(s.handedAt).toBeLessThan(s.from);
    });
    expect(clicked).toHaveLength(played.clicks.length);
    expect(events.onend).toHaveBeenCalledOnce();
  });

  it('does not drift: after five minutes round a phrase every stroke is where it must be, within a millisecond', async () => {
    const { struck, played, zero, pass } = await playing(true, 0.8);
    pass(300);
    const round = played.ends - played.begins;
    const count = played.notes.length;
    expect(struck.length).toBeGreaterThan((300 / round - 2) * count);
    const worst = Math.max(
      ...struck.map((s, i) => {
        const wanted = zero + Math.floor(i / count) * round + played.notes[i % count]!.at;
        return Math.abs(s.from - wanted);
      }),
    );
    expect(worst).toBeLessThan(0.001);
    for (const s of struck) expect(s.handedAt).toBeLessThan(s.from);
  });

  it('stops at once, and says nothing of it twice', async () => {
    const { struck, events, player, pass } = await playing(true);
    pass(3);
    player.stop();
    const before = struck.length;
    pass(5);
    expect(struck).toHaveLength(before);
    player.stop();
    expect(events.onend).toHaveBeenCalledOnce();
    expect(player.position).toBeUndefined();
  });
});
