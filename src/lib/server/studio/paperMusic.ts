/** Sheets of paper from what the studio has: pages as pictures, or as a PDF. Runs in the pool. */
import { noteNaming } from '$core/theory/noteNames';
import { chunksIn, type Plan } from '$core/lessons/plan';
import type { VoiceRange } from '$core/keys/rank';
import { placesOf } from '$core/lessons/chunkId';
import { listed, type VersionDocument } from '$core/version/document';
import { toLearn } from '$core/version/toLearn';
import { writeSvg } from '$lib/engrave/svg';
import {
  documentOfOne,
  handoutBeginning,
  handoutDocument,
  handoutName,
  pagePicture,
  sourceOf,
  writePdf,
  type Choices,
  type Imprint,
  type Page,
  type PaperDocument,
  type Source,
} from '$lib/paper';
import { eq } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Db } from '../db/open';
import { perOpening } from '../db/opening';
import { piece } from '../db/schema';
import { studioLevels } from './levels';
import { preparedPiece } from './prepared';

/** A line of a learner's week. */
export interface WeekLine {
  /** The piece, where it is not the one of the handout. */
  readonly piece: string | null;
  /** Ids of the first and the last measure, as chunks are named. */
  readonly chunk: string;
  readonly where: string;
  readonly steps: readonly string[];
  readonly tempo: string | null;
  readonly minutes: number;
}

/** One piece on paper for one learner, or for nobody yet. */
export interface PaperFor {
  readonly pieceId: string;
  readonly document: VersionDocument;
  /** The change after which it stands so. */
  readonly edit: number;
  readonly learner: string | null;
  readonly voice: VoiceRange | null;
  /** The learner's plan of it, where the teacher has changed it. */
  readonly plan: Plan | null;
  readonly week: {
    readonly minutesADay: number;
    readonly note: string;
    readonly lines: readonly WeekLine[];
  } | null;
  /** The link of the learner's practice room. */
  readonly room: string | null;
}

export interface PaperAsked {
  readonly for: readonly PaperFor[];
  readonly choices: Choices;
  readonly imprint: Omit<Imprint, 'areRightsKnown'>;
}

function sourceFor(db: Db, asked: PaperFor, choices: Choices): Source {
  const { pieceId, document, edit, learner, voice, plan, week, room } = asked;
  const row = db
    .select({ title: piece.title, composer: piece.composer })
    .from(piece)
    .where(eq(piece.id, pieceId))
    .get();
  const made = sourceOf({
    title: row?.title ?? '',
    composer: row?.composer ?? '',
    recipe: document.recipe,
    decisions: listed(document),
    levels: studioLevels(db),
    score: preparedPiece(db, pieceId).score,
    state: `change ${edit}`,
    learner,
    voice,
    room,
    choices,
  });
  const { version } = made;
  const ids = version.score.measures.map((m) => m.id);
  return {
    ...made,
    chunks: plan ? chunksIn(plan, toLearn(version), version.goalTempo) : made.chunks,
    week: week && {
      minutesADay: week.minutesADay,
      note: week.note,
      items: week.lines.map(({ piece: title, chunk, where, ...line }) => {
        const places = title === null ? placesOf(ids, chunk) : undefined;
        return { ...line, piece: title, measures: where, places };
      }),
    },
  };
}

interface Made {
  readonly document: PaperDocument;
  readonly name: string;
  /** The pages of each of whom it is for, as documents of their own. */
  readonly documents: readonly { readonly name: string; readonly document: PaperDocument }[];
}

/** Documents made lately in this thread: their pages are asked for one after the other. */
const MOST_DOCUMENTS = 3;
const documentsMade = perOpening(() => new LRUCache<string, Promise<Made>>({ max: MOST_DOCUMENTS }));

function documentFor(db: Db, asked: PaperAsked): Promise<Made> {
  const pieces = asked.for.map(({ pieceId }) => preparedPiece(db, pieceId).key);
  const documents = documentsMade(db);
  const key = JSON.stringify([noteNaming(), asked, pieces, areRightsKnown(db, asked.for), studioLevels(db)]);
  const known = documents.get(key);
  if (known) return known;
  const made = makeDocument(db, asked);
  documents.set(key, made);
  made.catch(() => documents.delete(key));
  return made;
}

const areRightsKnown = (db: Db, asked: readonly PaperFor[]): boolean =>
  asked.every(
    ({ pieceId }) =>
      db.select({ rights: piece.rights }).from(piece).where(eq(piece.id, pieceId)).get()?.rights !==
      'not known',
  );

async function makeDocument(db: Db, { for: asked, choices, imprint }: PaperAsked): Promise<Made> {
  const sources = asked.map((one) => sourceFor(db, one, choices));
  const document = await handoutDocument(sources, choices, {
    ...imprint,
    areRightsKnown: areRightsKnown(db, asked),
  });
  return {
    document,
    name: handoutName(sources, choices),
    documents: sources.map((source, i) => ({
      name: handoutName([source], choices),
      document: documentOfOne(document, source, i),
    })),
  };
}

const pictureOf = (page: Page, place: number) => ({
  place,
  sheet: page.sheet,
  svg: writeSvg(pagePicture(page, place)),
});

/** The first pages, soon: how the first sheet begins. A page may end a line earlier or later when all of it is known. */
export async function paperBeginning(
  db: Db,
  { for: asked, choices, imprint, pages: most }: PaperAsked & { readonly pages: number },
) {
  const [first] = asked;
  const sources = first ? [sourceFor(db, first, choices)] : [];
  const { pages } = await handoutBeginning(
    sources,
    choices,
    { ...imprint, areRightsKnown: areRightsKnown(db, asked) },
    most,
  );
  return pages.map(pictureOf);
}

/** Some pages as they will print, from one to before another, and how many there are. */
export async function paperPages(
  db: Db,
  { from, to, ...asked }: PaperAsked & { readonly from: number; readonly to: number },
) {
  const { document, name } = await documentFor(db, asked);
  return {
    name,
    count: document.pages.length,
    pages: document.pages.slice(from, to).map((page, i) => pictureOf(page, from + i)),
  };
}

/** All of them as the bytes of a PDF, with its name. */
export async function paperPdf(db: Db, asked: PaperAsked) {
  const { document, name } = await documentFor(db, asked);
  return { name, bytes: await writePdf(document) };
}

/** The same parted: a PDF for each of whom it is for, with what each has in it out of the whole. */
export async function paperPdfs(db: Db, asked: PaperAsked) {
  const { documents } = await documentFor(db, asked);
  const files: { readonly name: string; readonly bytes: Uint8Array }[] = [];
  for (const { name, document } of documents) files.push({ name, bytes: await writePdf(document) });
  return files;
}
