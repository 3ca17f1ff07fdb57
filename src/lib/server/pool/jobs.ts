/** Everything that the pool does: each job reads the studio and answers with plain data. */
import { LEVELS } from '$core/arrange/levels';
import { readScoreFile } from '$core/io/readScoreFile';
import { formatOf } from '$core/io/writeScoreFile';
import { proposedParts, withParts } from '$core/players/parts';
import { realise } from '$core/version/realise';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { tell } from '$core/pipeline/progress';
import { engrave } from '$lib/engrave/engrave';
import { sheetOf, type Sheet } from '$lib/engrave/sheet';
import type { Db } from '../db/open';
import { checkCopy, readyCopy, type CopyBrought } from '../studio/copyCheck';
import { broughtFile } from '../studio/brought';
import { studioCalendar } from '../studio/calendarFile';
import { sectionFile, sectionsOfLong } from '../studio/cutPieces';
import { weightOf } from '../studio/weight';
import { derivePieces, deriveVersions } from '../studio/derive';
import { chartsInAllKeys, songbookInAllKeys, sourceMeasures } from '../studio/pieceMusic';
import { fingersDecided, learnHouseHand } from '../studio/houseHand';
import { preparedPiece, sourceScore } from '../studio/prepared';
import { paperBeginning, paperPages, paperPdf, paperPdfs } from '../studio/paperMusic';
import {
  atLevel,
  comparedPhrases,
  decisionsPlaced,
  madeReady,
  openingOf,
  phraseSheets,
  roomMusic,
  sightSheet,
  stretchSheets,
  versionKeyCode,
  wholeReading,
} from '../studio/versionMusic';
import { writtenDocument } from '../studio/versions';
import type { VersionDocument } from '$core/version/document';

/** One of several sheets of a page, and which share of them is drawn already. */
interface ToDraw {
  readonly sheet: Sheet;
  readonly share: number;
}

function pictureOf(_db: Db, { sheet, share }: ToDraw): Promise<string> {
  tell('engrave', share);
  return engrave(sheet);
}

/** What is written: a version, or the piece as its file has it. */
interface Written {
  readonly pieceId: string;
  readonly document?: VersionDocument;
  readonly title: string;
  readonly composer: string;
  /** As in ".abc". */
  readonly ending: string;
}

function writtenAs(db: Db, { pieceId, document, title, composer, ending }: Written): string | Uint8Array {
  const score = document
    ? writtenDocument(db, pieceId, document)
    : { ...sourceScore(db, pieceId).score, title, composer };
  return formatOf(ending)!.write(score);
}

/** A few measures from a file to their picture, so that whoever comes first does not wait for what every piece needs. */
async function warmUp(): Promise<void> {
  const text = 'X:1\nM:4/4\nL:1/8\nK:C\n"C"CDEF G2E2|"F"A2c2 "C"G4|"Dm"FEDF "G7"E2D2|"C"C8|]\n';
  const { score } = readScoreFile('warm.abc', new TextEncoder().encode(text));
  const version = realise(
    withParts(score, proposedParts(score)),
    { ...DEFAULT_RECIPE, level: 4 },
    [],
    LEVELS,
  );
  await engrave(
    sheetOf(version, version.form.phrases[0]!, { width: 900, fingers: true, counts: true, chords: true }),
  );
}

export const jobs = {
  warm: (_db: Db, _nothing: null) => warmUp(),
  /** How much a piece of an older studio holds. */
  weigh: (db: Db, pieceId: string) => weightOf(sourceScore(db, pieceId).score),
  calendar: (db: Db, of: string | null) => studioCalendar(db, of),
  brought: broughtFile,
  pieces: derivePieces,
  versions: deriveVersions,
  /** As JSON: it goes to the page as it is. */
  score: (db: Db, pieceId: string) => {
    const { key, score } = preparedPiece(db, pieceId);
    return { key, json: JSON.stringify(score) };
  },
  measures: sourceMeasures,
  charts: chartsInAllKeys,
  reading: wholeReading,
  songbook: songbookInAllKeys,
  opening: openingOf,
  phrases: phraseSheets,
  sightLine: sightSheet,
  stretches: stretchSheets,
  room: roomMusic,
  level: atLevel,
  compared: comparedPhrases,
  draw: pictureOf,
  paper: paperPages,
  paperBeginning,
  pdf: paperPdf,
  pdfs: paperPdfs,
  ready: madeReady,
  fingersDecided,
  learnHouseHand: (db: Db, _nothing: null) => learnHouseHand(db),
  decisions: decisionsPlaced,
  versionKey: versionKeyCode,
  write: writtenAs,
  sectionsOfLong,
  sectionFile,
  checkCopy: (_db: Db, brought: CopyBrought) => checkCopy(brought),
  readyCopy: (_db: Db, { next, ...brought }: CopyBrought & { readonly next: string }) =>
    readyCopy(brought, next),
} as const;

export type Jobs = typeof jobs;
