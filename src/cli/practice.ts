/** The practice room as one file: `practice FILE --level N -o room.html`, or of a version of the studio by its id. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { HomeContents } from '../lib/core/lessons/home';
import { chunksIn, proposedPlan } from '../lib/core/lessons/plan';
import { nextSteps, planState } from '../lib/core/lessons/progress';
import { tasksOf, type RoomTask } from '../lib/core/lessons/room';
import { weekOf } from '../lib/core/lessons/week';
import { proposedLocale } from '../lib/core/locale';
import { realise, type Version } from '../lib/core/version/realise';
import { toLearn } from '../lib/core/version/toLearn';
import { HANDHELD, roomWish, USUAL } from '../lib/ui/shown/shown';
import { integerFrom, UsageError, wantedFrom, type Values } from './options';
import type { Input } from './outcome';

/** Minutes a day, where none are said. */
const MINUTES = 15;
/** Steps that are looked ahead: more than a week holds. */
const AHEAD = 40;

const PAGE = fileURLToPath(new URL('../../build/home/room.html', import.meta.url));
const BUILDER = fileURLToPath(new URL('../../scripts/build-home.ts', import.meta.url));

/** The page without contents; it is built where it never was. */
function page(): string {
  if (!existsSync(PAGE)) {
    const { status, stderr } = spawnSync(process.execPath, ['--import', 'tsx', BUILDER], {
      encoding: 'utf8',
      cwd: fileURLToPath(new URL('../..', import.meta.url)),
    });
    if (status !== 0) throw new Error(`The page of the practice room could not be built: ${stderr}`);
  }
  return PAGE;
}

/** The first week's steps of a version, by the plan that is proposed for it. */
function firstWeek(id: string, version: Version, minutes: number): RoomTask[] {
  const { score, goalTempo } = version;
  const music = toLearn(version);
  const plans = planState(chunksIn(proposedPlan(music, 'front to back'), music, goalTempo), {
    byMeasure: score.measures.map(() => new Map()),
  });
  const piece = {
    ...music,
    id,
    title: score.title || 'Untitled',
    time: score.measures.at(-1)!.time,
    goalTempo,
    plans,
  };
  return weekOf([{ assignment: id, next: nextSteps(plans, AHEAD), due: [] }], minutes).flatMap((item) =>
    tasksOf(piece, item),
  );
}

const wishFor = (room: number) => roomWish({ ...USUAL, room });

/** The bytes of the file. */
async function fileOf(id: string, version: Version, values: Values): Promise<Uint8Array> {
  if (!values.output?.toLowerCase().endsWith('.html')) throw new UsageError('practice needs -o FILE.html.');
  const minutes = values.minutes === undefined ? MINUTES : integerFrom('minutes', values.minutes, 5, 240);
  const tasks = firstWeek(id, version, minutes);
  // The engraver is loaded only where something is drawn.
  const [{ engrave }, { largeSheets }, { homeFile }] = await Promise.all([
    import('../lib/engrave/engrave'),
    import('../lib/engrave/large'),
    import('../lib/server/home'),
  ]);
  const drawnIn = async (room: number): Promise<Record<string, string[]>> => {
    const pictures: Record<string, string[]> = {};
    for (const { shows, ...places } of tasks) {
      if (pictures[shows]) continue;
      pictures[shows] = [];
      for (const sheet of largeSheets(version, places, wishFor(room)))
        pictures[shows].push(await engrave(sheet));
    }
    return pictures;
  };
  const { score, feel, counts } = version;
  const contents: HomeContents = {
    id,
    name: values.student ?? values.learner ?? (score.title || 'Practice'),
    locale: proposedLocale(Intl.DateTimeFormat().resolvedOptions().locale),
    tasks,
    pieces: {
      [id]: { music: { score, feel, counts }, wide: await drawnIn(0), narrow: await drawnIn(HANDHELD) },
    },
  };
  return homeFile(contents, page());
}

/** Of a file, as `arrange` would make it. */
export async function practice({ score, values, recipeFile, levels }: Input): Promise<Uint8Array> {
  if (values.level === undefined && recipeFile === undefined)
    throw new UsageError('practice needs --level 1 to 6, or the id of a version in the studio.');
  const { recipe, decisions } = wantedFrom(values, recipeFile, levels, score);
  const version = realise(score, recipe, decisions, levels);
  // The same music has the same record in a browser.
  const id = createHash('sha256')
    .update(JSON.stringify([score, recipe, decisions]))
    .digest('base64url');
  return fileOf(id.slice(0, 12), version, values);
}

/** Of a version of the studio; undefined where there is none with this id. */
export async function practiceOfVersion(id: string, values: Values): Promise<Uint8Array | undefined> {
  const [{ dataFolder, fileIn, openToRead }, { documentOfVersion, findVersion, realiseDocument }] =
    await Promise.all([import('../lib/server/db/open'), import('../lib/server/studio/versions')]);
  if (!existsSync(fileIn(dataFolder()))) return undefined;
  const db = openToRead(dataFolder());
  const row = findVersion(db, id);
  return row && fileOf(row.id, realiseDocument(db, row.pieceId, documentOfVersion(db, row)), values);
}
