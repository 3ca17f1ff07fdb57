/**
 * What the microphone’s ear makes of takes whose mistakes are known: rendered with the shipped piano in a room, with noise, out of tune and
 * with human times, from pieces and seeds that no threshold was chosen by. Prints each figure beside its goal. `npm run bench:microphone`
 */
import { chromium } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { readScoreFile } from '../src/lib/core/io/readScoreFile';
import { perform } from '../src/lib/core/performance/perform';
import type { PlayedNote } from '../src/lib/core/performance/played';
import { TICKS_PER_QUARTER } from '../src/lib/core/score/ticks';
import { expectationOf, type Expectation } from '../src/lib/core/takes/expectation';
import { keystrokesHeard } from '../src/lib/core/takes/hearing';
import { judge } from '../src/lib/core/takes/judge';
import { pretendToPlay, type Played } from '../src/lib/core/takes/pretendPlayer';
import { realise } from '../src/lib/core/version/realise';
import { recipeSchema } from '../src/lib/core/version/recipe';
import { soundOf } from '../src/lib/ear/listen';
import { SAMPLE_RATE } from '../src/lib/ear/model';
import { CHROMIUM } from './chromium';
import { earModel } from './earModel';
import { takeRenderer, type SoundOf } from './takeSound';

const FOLDER = 'tests/music';
const PIECES = (
  process.env.PIECES ?? 'pushed-boats.abc corner-tango.abc far-bridge.abc dorian-walk.abc'
).split(' ');
const LEVELS = [1, 2, 3, 4];
const MEASURES = 8;
const HUMAN = { jitter: 0.03, rolled: 0.2, drift: 0.05 };
const MISTAKES = { wrong: 0.05, missed: 0.03 };
/** Seconds before the first key. */
const LEAD = 0.5;

interface Tally {
  notes: number;
  unsure: number;
  accused: number;
  planted: number;
  called: number;
  named: number;
}
const tallies = new Map<string, Tally>();
const tallyOf = (levels: string): Tally => {
  const found = tallies.get(levels) ?? { notes: 0, unsure: 0, accused: 0, planted: 0, called: 0, named: 0 };
  tallies.set(levels, found);
  return found;
};

/** Keys as they are struck and let go. */
function soundsOf(
  { keystrokes }: Played,
  { notes, tempo }: Expectation,
  written: readonly PlayedNote[],
): SoundOf[] {
  return keystrokes.map(({ midi, onset, note }, i) => {
    const meant = note === undefined ? undefined : written.find((w) => w.id === notes[note]!.id);
    const held = ((meant?.duration ?? TICKS_PER_QUARTER) / TICKS_PER_QUARTER) * (60 / tempo) * 0.95;
    const again = keystrokes.find((k) => k.midi === midi && k.onset > onset)?.onset ?? Infinity;
    return {
      midi,
      onset: onset + LEAD,
      duration: Math.max(0.1, Math.min(held, again - onset - 0.03)),
      velocity: 60 + ((i * 13) % 40),
    };
  });
}

function count(
  tally: Tally,
  expectation: Expectation,
  { mistakes }: Played,
  take: ReturnType<typeof judge>,
): void {
  const planted = new Map(mistakes.flatMap((m) => (m.kind === 'extra' ? [] : [[m.note, m] as const])));
  const judged = new Map(take.passes.flatMap((p) => p.notes).map((j) => [j.note.index, j] as const));
  for (const { index } of expectation.notes) {
    const verdict = judged.get(index)?.verdict ?? 'unsure';
    const mistake = planted.get(index);
    const isCalled = verdict === 'other' || verdict === 'missed';
    if (!mistake) {
      tally.notes += 1;
      if (verdict === 'unsure') tally.unsure += 1;
      if (isCalled) tally.accused += 1;
      continue;
    }
    tally.planted += 1;
    if (isCalled) tally.called += 1;
    const isNamed =
      mistake.kind === 'wrong'
        ? verdict === 'other' && judged.get(index)?.played === mistake.midi
        : verdict === 'missed';
    if (isNamed) tally.named += 1;
  }
}

const browser = await chromium.launch(CHROMIUM);
const render = await takeRenderer(browser);
const model = await earModel();
let [heard, seconds, seed] = [0, 0, 90_000];
let furthest = 0;
for (const name of PIECES) {
  const { score } = readScoreFile(name, new Uint8Array(readFileSync(join(FOLDER, name))));
  for (const level of LEVELS) {
    seed += 1;
    const version = realise(score, recipeSchema.parse({ level }), []);
    const performance_ = perform(version.score, version.feel);
    const to = Math.min(MEASURES, version.score.measures.length) - 1;
    const expectation = expectationOf(performance_, { from: 0, to });
    const played = pretendToPlay(expectation, { ...HUMAN, ...MISTAKES, seed });
    const samples = await render(soundsOf(played, expectation, performance_.notes), {
      seed,
      cents: ((seed * 37) % 31) - 15,
      noise: 20,
      room: 0.4,
    });
    const begun = performance.now();
    const sound = await soundOf(model, samples);
    const take = judge(expectation, keystrokesHeard(sound, expectation), true);
    heard += (performance.now() - begun) / 1000;
    seconds += samples.length / SAMPLE_RATE;
    const truth = judge(expectation, played.keystrokes, true);
    if (take.tempo && truth.tempo) furthest = Math.max(furthest, Math.abs(take.tempo / truth.tempo - 1));
    count(tallyOf(level <= 2 ? '1 and 2' : '3 and 4'), expectation, played, take);
  }
}
await browser.close();

const percent = (part: number, of: number): string => `${((100 * part) / Math.max(1, of)).toFixed(1)} %`;
console.log(
  `The microphone: ${PIECES.length} pieces, levels 1 to 4, ${MEASURES} measures each, ${Math.round(seconds)} s of sound`,
);
for (const [levels, t] of tallies) {
  const goal = levels === '1 and 2' ? '97 %' : '90 %';
  console.log(`  levels ${levels}: ${t.notes} right notes, ${t.planted} planted mistakes`);
  console.log(
    `    right notes called wrong  ${percent(t.accused, t.notes)} (${t.accused})   goal at most 0.5 %`,
  );
  console.log(`    right notes unsure        ${percent(t.unsure, t.notes)} (${t.unsure})   goal at most 4 %`);
  console.log(
    `    mistakes called           ${percent(t.called, t.planted)} (${t.called} of ${t.planted})   goal ${goal}`,
  );
  console.log(`    and with their key        ${percent(t.named, t.planted)} (${t.named} of ${t.planted})`);
}
console.log(`  tempo off by at most        ${percent(furthest, 1)}   goal 3 %`);
console.log(`  of real time                ${(heard / seconds).toFixed(2)}`);
