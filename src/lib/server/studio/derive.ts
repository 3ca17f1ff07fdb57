/**
 * What pages show of pieces and versions, derived from their content. Reads and arranges, and so runs in the pool; summaries.ts keeps
 * what comes out.
 */
import { handsByMeasure, type HandsOfVersion } from '$core/lessons/carried';
import type { ToLearn } from '$core/lessons/plan';
import { beatsIn } from '$core/score/places';
import { idiomOf } from '$core/analysis/idiom';
import type { Idiom } from '$core/analysis/idioms';
import { formOf, type Form } from '$core/analysis/form';
import { chordsOf } from '$core/analysis/harmony';
import { loopOf, progressionOf } from '$core/analysis/progression';
import { decisionText } from '$core/decisions/registry';
import { decisionsOf, subjectOf } from '$core/decisions/decide';
import { placeText } from '$core/decisions/placeText';
import { levelNumbered } from '$core/arrange/levels';
import type { PartChoices } from '$core/players/parts';
import { strandsOf } from '$core/difficulty/strands';
import { analysed } from '$core/version/analysed';
import { goalTempoOf, versionKey } from '$core/version/arrangement';
import { introductionOf } from '$core/version/introduction';
import { partFacts, type PartFacts } from '$lib/engrave/preview';
import { tuneFacts, type TuneFacts } from '$lib/engrave/tuneFacts';
import { homeChoices, keyOf } from '$core/analysis/home';
import { reportOf, type PieceReport } from '$core/report/report';
import { InputError } from '$core/io/inputError';
import { groupingsOf, groupsOf } from '$core/score/metre';
import type { Measure, Score, TimeSignature } from '$core/score/score';
import { keyCode, keyName, type Key } from '$core/theory/key';
import { and, eq } from 'drizzle-orm';
import type { Db } from '../db/open';
import { versionSummary } from '../db/schema';
import { contentKey } from './contentKey';
import { studioLevels } from './levels';
import { preparedPiece, sourceScore } from './prepared';
import { documentAt, realiseDocument } from './versions';

/** Longer pieces are analysed by the page's own worker, which shows how far it is. */
const LONG = 240;

export interface PieceSummary {
  readonly key: Key;
  readonly time: TimeSignature;
  /** Measures as they are played, and those to be learned. */
  readonly measures: number;
  readonly newMeasures: number;
  /** What kind of music it is. */
  readonly idiom: Idiom;
  /** Its chords as degrees of its home key, and the loop that goes round in them. */
  readonly progression: readonly string[];
  readonly loop: readonly string[] | null;
}

/** The form as paths, chunks and steps need it. */
export type SummaryForm = Pick<Form, 'firstSeen' | 'newMeasures' | 'measureCount' | 'phrases'> & {
  readonly sections: readonly Pick<
    Form['sections'][number],
    'letter' | 'prime' | 'label' | 'role' | 'from' | 'to'
  >[];
};

export interface VersionSummary {
  readonly level: number;
  readonly key: Key;
  readonly goalTempo: number;
  readonly time: TimeSignature;
  /** By measure of the version. */
  readonly ids: readonly string[];
  readonly numbers: readonly string[];
  readonly beats: ToLearn['beats'];
  readonly difficulty: readonly number[];
  /** Points of each kind of difficulty by measure, in the order of STRANDS. */
  readonly strands: readonly (readonly number[])[];
  readonly form: SummaryForm;
  /** What each hand plays by measure, as short names of its notes. */
  readonly hands: HandsOfVersion['hands'];
}

/** What a piece's own page shows besides its versions. */
export interface PieceFacts {
  /** null where the piece is too long to be analysed for a page. */
  readonly report: PieceReport | null;
  readonly numbers: readonly string[];
  readonly warnings: readonly string[];
  /** What was put right in the source, in words, with where it is. */
  readonly mends: readonly {
    readonly subject: string;
    readonly note: string | null;
    readonly says: string;
    readonly where: string;
  }[];
  readonly parts: {
    readonly list: readonly PartFacts[];
    readonly choices: PartChoices;
    readonly tune: readonly TuneFacts[];
  };
  readonly key: Key;
  /** What the teacher said of the whole, where she has: the home key by its short name, and the groups of a measure. */
  readonly said: { readonly home: string | null; readonly groups: string | null };
  /** Homes to choose from, and groupings where the metre has several. */
  readonly homes: readonly { readonly code: string; readonly name: string }[];
  readonly groupings: readonly string[];
  /** The groups as they are read now; null where equal beats say all. */
  readonly groups: string | null;
}

/** A version at an edit, whose summary is wanted. */
export interface Wanted {
  readonly versionId: string;
  readonly pieceId: string;
  readonly number: number;
}

/** What follows from the form of a version. */
const formFacts = (form: Form, measures: readonly Measure[]) => ({
  time: measures.at(-1)!.time,
  ids: measures.map((m) => m.id),
  numbers: measures.map((m) => m.number),
  beats: measures.map(beatsIn),
  form: {
    firstSeen: form.firstSeen,
    newMeasures: form.newMeasures,
    measureCount: form.measureCount,
    phrases: form.phrases,
    sections: form.sections.map(({ letter, prime, label, role, from, to }) => ({
      letter,
      prime,
      label,
      from,
      to,
      ...(role ? { role } : {}),
    })),
  },
});

/** Degrees of a piece that are looked through. */
const MOST_DEGREES = 400;

/** What lists and the piece's own page say of a piece. Throws InputError where its file cannot be read. */
function derivePiece(db: Db, pieceId: string): { data: PieceSummary; facts: PieceFacts } {
  const { score, parts, warnings, mends } = preparedPiece(db, pieceId);
  const source = sourceScore(db, pieceId).score;
  const report = score.measures.length > LONG ? null : reportOf(score);
  const form = report?.form ?? formOf(score);
  const key = keyOf(score);
  // Of a piece too long for its page nobody looks for a loop.
  const progression = report ? progressionOf(chordsOf(score), key).slice(0, MOST_DEGREES) : [];
  return {
    data: {
      key,
      time: score.measures[0]!.time,
      measures: form.measureCount,
      newMeasures: form.newMeasures,
      idiom: idiomOf(score).idiom,
      progression,
      loop: loopOf(progression) ?? null,
    },
    facts: {
      report,
      numbers: score.measures.map((m) => m.number),
      warnings,
      mends: mends.map((mend) => ({
        subject: subjectOf(mend),
        note: 'note' in mend.at ? mend.at.note : null,
        says: decisionText(mend),
        where: 'version' in mend.at ? 'the whole piece' : placeText(mend.at, { score, form }),
      })),
      parts: { list: partFacts(source.parts), choices: parts, tune: tuneFacts(source, parts) },
      key,
      said: {
        home: decisionsOf(mends, 'home')[0]?.value ?? null,
        groups: decisionsOf(mends, 'groups')[0]?.value ?? null,
      },
      homes: homeChoices(source.measures[0]!.key.fifths).map((k) => ({ code: keyCode(k), name: keyName(k) })),
      ...groupingFacts(score),
    },
  };
}

/** The groupings of the first metre that has several, and the one in use. */
function groupingFacts({ measures }: Score): Pick<PieceFacts, 'groups' | 'groupings'> {
  const time = measures.find((m) => groupsOf(m.time))?.time;
  return {
    groups: time ? groupsOf(time)!.join('+') : null,
    groupings: time ? groupingsOf(time.beats).map((lengths) => lengths.join('+')) : [],
  };
}

/** Short names for what each hand plays; a rest stays an empty one. */
function namedHands(score: Score): HandsOfVersion['hands'] {
  const { right, left } = handsByMeasure(score);
  const named = (text: string): string => (text === '' ? '' : contentKey(text).slice(0, 12));
  return { right: right.map(named), left: left.map(named) };
}

function wholeVersion(db: Db, { versionId, pieceId, number }: Wanted): VersionSummary {
  const document = documentAt(db, versionId, number);
  const { form, score, difficulty, key, goalTempo } = realiseDocument(db, pieceId, document);
  return {
    ...formFacts(form, score.measures),
    level: document.recipe.level,
    key,
    goalTempo,
    difficulty: difficulty.map((d) => d.score),
    strands: strandsOf(score),
    hands: namedHands(score),
  };
}

/**
 * The summary of a version whose piece or levels have changed, without arranging anything: form, key and tempo as they are now; only
 * how hard its measures are is as it was. The server makes the rest again while it has time.
 */
function lightVersion(
  db: Db,
  { versionId, pieceId, number }: Wanted,
  before: VersionSummary,
): VersionSummary {
  const { recipe } = documentAt(db, versionId, number);
  const { score } = preparedPiece(db, pieceId);
  const levels = studioLevels(db);
  const { form, score: heard } = analysed(score, introductionOf(score, recipe));
  const known = new Map(before.ids.map((id, i) => [id, before.difficulty[i] ?? 0]));
  return {
    ...formFacts(form, heard.measures),
    level: recipe.level,
    key: versionKey(score, recipe, levels),
    goalTempo: goalTempoOf(score, levelNumbered(recipe.level, levels)),
    difficulty: heard.measures.map((m) => known.get(m.id) ?? 0),
    strands: heard.measures.map((m) => before.strands?.[before.ids.indexOf(m.id)] ?? []),
    // Nothing is carried over until it is arranged again.
    hands: { right: [], left: [] },
  };
}

/** What cannot be read or arranged, with why. */
export interface Unreadable {
  readonly problem: string;
}

/** A summary as it was derived; `isWhole` where it can be kept. */
export interface Derived {
  readonly summary: VersionSummary | Unreadable;
  readonly isWhole: boolean;
}

/** A list does not wait longer than this for summaries to be made again, in milliseconds. */
const PATIENCE = 150;

/** Summaries of versions, in the order in which they are wanted. One that cannot be made stops no other. */
export function deriveVersions(db: Db, wanted: readonly Wanted[]): Derived[] {
  const began = Date.now();
  return wanted.map((w) => {
    const made = readable(`Version ${w.versionId}`, (): Derived => {
      const before = Date.now() - began > PATIENCE ? earlier(db, w) : undefined;
      return before
        ? { summary: lightVersion(db, w, before), isWhole: false }
        : { summary: wholeVersion(db, w), isWhole: true };
    });
    return 'problem' in made ? { summary: made, isWhole: false } : made;
  });
}

/** What is made of something, or why it cannot be; what is not the file's fault goes to the log too. */
function readable<T>(name: string, make: () => T): T | Unreadable {
  try {
    return make();
  } catch (error) {
    if (error instanceof InputError) return { problem: error.message };
    console.error(`${name} cannot be shown:`, error);
    return { problem: 'Its data is damaged. Restore a backup.' };
  }
}

/** What was kept of a version, for whatever content that was. */
function earlier(db: Db, { versionId, number }: Wanted): VersionSummary | undefined {
  const row = db
    .select({ data: versionSummary.data })
    .from(versionSummary)
    .where(and(eq(versionSummary.versionId, versionId), eq(versionSummary.number, number)))
    .get();
  return row && (JSON.parse(row.data) as VersionSummary);
}

/** What lists say of several pieces. One that cannot be read stops no other. */
export const derivePieces = (
  db: Db,
  pieces: readonly string[],
): (ReturnType<typeof derivePiece> | Unreadable)[] =>
  pieces.map((id) => readable(`Piece ${id}`, () => derivePiece(db, id)));
