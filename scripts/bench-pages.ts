/**
 * `npm run bench:pages`: how long pages take with 60 learners of three years of weekly lessons, 100 pieces, 2,000 versions and
 * 200,000 events, against the built server. Everything goes in as the application puts it in; the events of three years are written as rows.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Decision } from '../src/lib/core/decisions/registry';
import { chunksIn, proposedPlan } from '../src/lib/core/lessons/plan';
import { writeMusicXml } from '../src/lib/core/io/musicxml/write';
import { scoreFrom } from '../src/lib/core/test/shorthand';
import { documentOf } from '../src/lib/core/version/document';
import { analysed } from '../src/lib/core/version/analysed';
import { openDatabase } from '../src/lib/server/db/open';
import { progressEvent } from '../src/lib/server/db/schema';
import { inThisThread } from '../src/lib/server/pool/work';
import { giveNow } from '../src/lib/server/studio/giving';
import { addLearner, findLearner, startFor } from '../src/lib/server/studio/learners';
import { addLesson, beginLesson } from '../src/lib/server/studio/lessons';
import { addPiece } from '../src/lib/server/studio/pieces';
import { preparedPiece } from '../src/lib/server/studio/prepared';
import { deriveLine } from '../src/lib/server/studio/progress';
import { pieceSummaries } from '../src/lib/server/studio/summaries';
import { addVersion, findVersion } from '../src/lib/server/studio/versions';
import { times } from './benchMusic';
import { median, print, startServer, type Line } from './builtServer';

const LEARNERS = 60;
const WEEKS = 156;
const PIECES = 100;
const VERSIONS = 2000;
const EVENTS = 200_000;
const REQUESTS = 25;
const PORT = 5193;

/** The same numbers at every run. */
let seed = 7;
const random = (below: number): number => {
  seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648;
  return seed % below;
};

const RIGHT = [
  'D5:0.5 E5:0.5 F#5:1 A5:0.5 G5:0.5 F#5:1',
  'B4:1.5 A4:0.5 D5:1 E5:1',
  'D5:0.5 C#5:0.5 B4:0.5 A4:0.5 G4:1 F#4:1',
  'E4:2 D4:2',
  'A4:1 B4:1 C#5:1 D5:1',
  'F#5:2 E5:2',
];
const LEFT = ['D3:1 [F#3 A3]:1 A2:1 [F#3 A3]:1', 'G2:2 D3:2', 'B2:1 [D3 F#3]:1 E3:1 [G3 B3]:1', 'A2:2 D3:2'];

function pieceBytes(index: number): Uint8Array {
  const measures = 32 + 8 * (index % 5);
  const shuffled = Array.from({ length: 8 }, () => RIGHT[random(RIGHT.length)]!);
  const score = scoreFrom({
    title: `Piece ${String(index + 1).padStart(3, '0')}`,
    key: 'D',
    time: { beats: 4, beatType: 4 },
    tempo: 80 + (index % 40),
    right: times(measures, shuffled),
    left: times(measures, LEFT),
    chords: times(measures, ['D', 'G D', 'Bm Em', 'A7 D']),
  });
  return new TextEncoder().encode(writeMusicXml(score));
}

const day = (ago: number): string => new Date(Date.now() - ago * 86_400_000).toISOString();

/** Fills a folder with the studio; ids of a learner, a piece and a lesson come back. */
async function makeStudio(folder: string): Promise<{ learner: string; piece: string; lesson: string }> {
  const db = openDatabase(folder, 'drizzle');
  const learners = Array.from({ length: LEARNERS }, (_, i) =>
    addLearner(
      db,
      {
        name: `Learner ${String(i + 1).padStart(3, '0')}`,
        weekday: 1 + (i % 7),
        time: `${String(13 + (i % 7)).padStart(2, '0')}:30`,
        level: 1 + (i % 6),
        reachRight: 8,
        reachLeft: 8,
        keyboard: 61,
        hasPedal: true,
        school: null,
        voiceLow: null,
        voiceHigh: null,
        minutesADay: 15,
        about: '',
      },
      day(7 * WEEKS).slice(0, 10),
    ),
  );
  const lessons = new Map(
    learners.map((learner) => [
      learner,
      Array.from({ length: WEEKS }, (_, week) =>
        addLesson(db, learner, day(7 * week).slice(0, 10), `What was said in week ${week}.`, {
          minutesSet: 15,
          practised: 40 + random(60),
        }),
      ),
    ]),
  );
  const pieces = Array.from({ length: PIECES }, (_, i) => {
    const name = `piece-${i}.musicxml`;
    return addPiece(db, { name, bytes: pieceBytes(i), rights: 'own work' });
  });
  const work = inThisThread(db);
  await pieceSummaries(db, work);
  const perPiece = VERSIONS / PIECES;
  for (const [p, piece] of pieces.entries()) {
    const { score } = preparedPiece(db, piece);
    const music = {
      ids: score.measures.map((m) => m.id),
      form: analysed(score).form,
      difficulty: score.measures.map(() => 30),
    };
    const chunks = chunksIn(proposedPlan(music, 'front to back'), music, 80);
    for (let v = 0; v < perPiece; v++) {
      const learner = findLearner(db, learners[(p * perPiece + v) % LEARNERS]!)!;
      const start = startFor(learner, { level: 1 + (v % 6) });
      const finger: Decision = { kind: 'finger', at: { note: `m${v % 8}n0` }, value: 3 };
      const id = addVersion(db, piece, documentOf(start.recipe, v % 4 === 0 ? [finger] : []));
      const assignment = await giveNow(db, work, findVersion(db, id)!, learner.id);
      // A piece is played for some months, and again now and then.
      const began = 40 + random(WEEKS - 40);
      const rows = Array.from({ length: EVENTS / VERSIONS }, (_, e) => {
        const chunk = chunks[random(chunks.length)]!;
        const step = chunk.steps[random(chunk.steps.length)]!;
        const week = Math.max(0, began - Math.floor(e / 4));
        const at = day(7 * week);
        return {
          assignmentId: assignment,
          lessonId: lessons.get(learner.id)![week]!,
          chunk: chunk.id,
          step: step.id,
          hand: step.hand,
          counting: step.counting,
          tempo: 40 + random(60),
          grade: e % 3 === 0 ? null : 1 + random(4),
          createdAt: at,
          day: at.slice(0, 10),
        };
      });
      db.insert(progressEvent).values(rows).run();
      await deriveLine(db, work, assignment);
    }
    if (p % 10 === 9) console.error(`${p + 1} of ${PIECES} pieces are in`);
  }
  return { learner: learners[0]!, piece: pieces[0]!, lesson: beginLesson(db, learners[0]!) };
}

async function timed(url: string): Promise<{ ms: number; bytes: number }> {
  const start = performance.now();
  const response = await fetch(url);
  const bytes = (await response.arrayBuffer()).byteLength;
  if (!response.ok) throw new Error(`${url} answered ${response.status}.`);
  return { ms: performance.now() - start, bytes };
}

const folder = mkdtempSync(join(tmpdir(), 'keypath-pages-'));
try {
  const { learner, piece, lesson } = await makeStudio(folder);
  const pages = [
    ['Today', '/'],
    ['The week', '/week'],
    ['Learners, overview', '/learners'],
    ['The lesson', `/lessons/${lesson}`],
    ['A learner', `/learners/${learner}`],
    ['Pieces', '/pieces'],
    ['A piece', `/pieces/${piece}`],
  ] as const;
  const lines: Line[] = [];
  for (const [name, path] of pages) {
    const server = await startServer(folder, PORT);
    try {
      const first = await timed(server.url + path);
      const later: number[] = [];
      for (let i = 0; i < REQUESTS; i++) later.push((await timed(server.url + path)).ms);
      lines.push(
        { what: `${name}: first time after a start`, value: first.ms, unit: 'ms', below: 400 },
        { what: `${name}: median of ${REQUESTS}`, value: median(later), unit: 'ms', below: 150 },
        { what: `${name}: size`, value: first.bytes / 1000, unit: 'kB', below: 250 },
      );
    } finally {
      await server.stop();
    }
  }
  print(lines);
} finally {
  rmSync(folder, { recursive: true });
}
