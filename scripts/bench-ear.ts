/**
 * What the ear makes of takes whose mistakes are known: a pretend player plays versions of the jury's pieces, with seeds that no test
 * uses. Prints each figure beside its goal. `npm run bench:ear`
 */
import { readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { readScoreFile } from '../src/lib/core/io/readScoreFile';
import { perform } from '../src/lib/core/performance/perform';
import { expectationOf, type Expectation } from '../src/lib/core/takes/expectation';
import { judge, type ExtraNote, type JudgedNote, type Take } from '../src/lib/core/takes/judge';
import { pretendToPlay, type Habits, type Mistake, type Played } from '../src/lib/core/takes/pretendPlayer';
import { realise } from '../src/lib/core/version/realise';
import { recipeSchema } from '../src/lib/core/version/recipe';

const FOLDER = 'tests/music';
const PIECES = (
  process.env.PIECES ??
  'harbour-bossa.abc seven-stones.abc pushed-boats.abc lantern-canon.abc north-chorale.abc'
).split(' ');
const LEVELS = [1, 2, 3, 4, 5, 6];
const HUMAN: Omit<Habits, 'seed'> = { jitter: 0.04, rolled: 0.3, drift: 0.15 };

interface Tally {
  notes: number;
  accused: number;
  invented: number;
  planted: Record<Mistake['kind'], number>;
  named: Record<Mistake['kind'], number>;
}
const newTally = (): Tally => ({
  notes: 0,
  accused: 0,
  invented: 0,
  planted: { wrong: 0, missed: 0, extra: 0 },
  named: { wrong: 0, missed: 0, extra: 0 },
});

/**
 * A mistake is named where its note is not called right, and its key is called another key or one too much: a missed note beside a key
 * too much is the same to every ear as another key in its place.
 */
function isNamed(mistake: Mistake, judged: readonly JudgedNote[], extras: readonly ExtraNote[]): boolean {
  const isNote = mistake.kind !== 'extra';
  const isCalled =
    isNote &&
    judged.some((j) => j.note.index === mistake.note && (j.verdict === 'other' || j.verdict === 'missed'));
  if (mistake.kind === 'missed') return isCalled;
  const same = (midi: number | undefined, at: number | undefined): boolean =>
    midi === mistake.midi && Math.abs(at! - mistake.at) < 0.01;
  const isHeard =
    extras.some((e) => same(e.midi, e.at)) ||
    judged.some((j) => j.verdict === 'other' && same(j.played, j.at));
  return isHeard && (isCalled || !isNote);
}

function count(tally: Tally, { notes }: Expectation, { mistakes }: Played, take: Take): void {
  const faulty = new Set(mistakes.flatMap((m) => (m.kind === 'extra' ? [] : [m.note])));
  const judged = take.passes.flatMap((p) => p.notes);
  const extras = take.passes.flatMap((p) => p.extra);
  tally.notes += notes.length;
  for (const { note, verdict } of judged)
    if (!faulty.has(note.index) && (verdict === 'other' || verdict === 'missed')) tally.accused += 1;
  for (const m of mistakes) {
    tally.planted[m.kind] += 1;
    if (isNamed(m, judged, extras)) tally.named[m.kind] += 1;
  }
  const planted = mistakes.flatMap((m) => (m.kind === 'missed' ? [] : [m]));
  for (const e of extras)
    if (!planted.some((m) => m.midi === e.midi && Math.abs(m.at - e.at) < 0.01)) tally.invented += 1;
}

const expectations = PIECES.flatMap((name) => {
  const { score } = readScoreFile(basename(name), new Uint8Array(readFileSync(join(FOLDER, name))));
  return LEVELS.map((level) => {
    const version = realise(score, recipeSchema.parse({ level }), []);
    const played = perform(version.score);
    return {
      name: `${name} ${level}`,
      expectation: expectationOf(played, { from: 0, to: version.score.measures.length - 1 }),
    };
  });
});

let seed = 70_000;
const clean = newTally();
const planted = newTally();
let judging = 0;
for (const { expectation } of expectations) {
  for (const [tally, habits] of [
    [clean, HUMAN],
    [planted, { ...HUMAN, wrong: 0.03, missed: 0.02, extra: 0.015, hesitating: 0.1 }],
  ] as const) {
    const played = pretendToPlay(expectation, { ...habits, seed: (seed += 1) });
    const begun = performance.now();
    const take = judge(expectation, played.keystrokes);
    judging += performance.now() - begun;
    count(tally, expectation, played, take);
  }
}

/** Measures that the player plays in the last pass until the ear is in place for good. */
function measuresLost({ notes, onsets }: Expectation, { keystrokes }: Played, take: Take): number {
  const judgedAt = new Map(take.passes.flatMap((p) => p.notes).map((j) => [j.at, j.note.index]));
  const onsetOf = new Map(onsets.flatMap((o, i) => o.notes.map((n) => [n.index, i] as const)));
  const last = Math.max(...keystrokes.map((k) => k.pass));
  const own = keystrokes.filter(
    (k) => k.pass === last && k.note !== undefined && notes[k.note]!.midi === k.midi,
  );
  const lost = own.findLastIndex((k) => {
    const heard = judgedAt.get(k.onset);
    return heard === undefined || !isSameMusic(onsets, onsetOf.get(heard)!, onsetOf.get(k.note!)!);
  });
  return lost < 0 ? 0 : Math.abs(notes[own[lost]!.note!]!.measure - notes[own[0]!.note!]!.measure) + 1;
}

/** The same keys stand at both places and after them. */
function isSameMusic(onsets: Expectation['onsets'], a: number, b: number): boolean {
  const keysAt = (onset: number): string => (onsets[onset]?.notes ?? []).map((n) => n.midi).join();
  return a === b || [0, 1, 2, 3, 4, 5].every((i) => keysAt(a + i) === keysAt(b + i));
}

/** Routes with a restart, a repeat or a skip, and after how many measures the ear is in place again. */
let routes = 0;
let inPlace = 0;
let worst = 0;
for (const { expectation } of expectations) {
  const { onsets } = expectation;
  if (onsets.length < 24) continue;
  for (let k = 0; k < 4; k++) {
    seed += 1;
    const stop = 8 + ((seed * 7919) % (onsets.length - 16));
    const to = k === 0 ? 0 : (seed * 104_729) % (onsets.length - 8);
    const played = pretendToPlay(expectation, {
      ...HUMAN,
      wrong: 0.02,
      seed,
      route: [
        [0, stop],
        [to, onsets.length - 1],
      ],
    });
    const take = judge(expectation, played.keystrokes);
    const lost = measuresLost(expectation, played, take);
    if (process.env.SHOW && lost > 1)
      console.log('lost', lost, stop, to, JSON.stringify(take.passes.map((q) => [q.from, q.to])));
    routes += 1;
    worst = Math.max(worst, lost);
    if (lost <= 1) inPlace += 1;
    else if (process.env.SHOW)
      console.log('lost', { stop, to, passes: take.passes.map((p) => [p.from, p.to]) });
  }
}

const line = (what: string, measured: string, goal: string): void =>
  console.log(`${what.padEnd(58)} ${measured.padStart(16)}   goal ${goal}`);
const share = (a: number, b: number): string => `${a} of ${b}`;
console.log('MIDI, 40 ms jitter, rolled chords, ±15 % drift');
line('right notes called wrong or missed, nothing planted', share(clean.accused, clean.notes), '0');
line('keys called too much, nothing planted', String(clean.invented), '0');
line('right notes called wrong or missed, beside planted ones', share(planted.accused, planted.notes), '0');
line('keys called too much that were not', String(planted.invented), '0');
for (const kind of ['wrong', 'missed', 'extra'] as const)
  line(`planted ${kind} notes named`, share(planted.named[kind], planted.planted[kind]), 'all');
line(
  'in place within a measure after restart, repeat or skip',
  `${share(inPlace, routes)}, at worst ${worst}`,
  'all',
);
line(
  'judging, milliseconds for 1,000 notes',
  (judging / ((clean.notes + planted.notes) / 1000)).toFixed(0),
  'a mark 150 ms after the key',
);
