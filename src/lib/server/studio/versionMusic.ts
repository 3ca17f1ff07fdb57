/** The music of a version as its pages show it: what follows from it, and sheets of its phrases to be drawn. Runs in the pool. */
import { levelNumbered } from '$core/arrange/levels';
import { decisionText, kindOf } from '$core/decisions/registry';
import { subjectOf } from '$core/decisions/decide';
import { placeText } from '$core/decisions/placeText';
import { scoreOfWhole } from '$core/difficulty/level';
import { placesOf } from '$core/lessons/chunkId';
import { keyCode, keyName } from '$core/theory/key';
import { versionKey } from '$core/version/arrangement';
import { listed, type VersionDocument } from '$core/version/document';
import { canMend } from '$core/version/mend';
import { capital } from '$core/capital';
import { differencesBetween, runsOf } from '$core/version/compare';
import { measuresText } from '$core/score/measureText';
import { readingOf, type Reading } from '$core/version/announce';
import type { Version } from '$core/version/realise';
import { largeSheets, type LargeWish } from '$lib/engrave/large';
import { sheetOf, type Sheet, type SheetWish } from '$lib/engrave/sheet';
import type { Db } from '../db/open';
import { studioLevels } from './levels';
import { preparedPiece } from './prepared';
import { realiseDocument } from './versions';

/** A document over its piece. */
interface Of {
  readonly pieceId: string;
  readonly document: VersionDocument;
}
interface Shown extends Of {
  readonly show: SheetWish;
}

/** Sheets of the phrases from one to before another. */
const sheetsOf = (version: Version, show: SheetWish, from: number, to: number): Sheet[] =>
  version.form.phrases.slice(from, to).map((phrase) => sheetOf(version, phrase, show));

/** Makes a version and keeps it in this thread. */
export function madeReady(db: Db, { pieceId, document }: Of): void {
  realiseDocument(db, pieceId, document);
}

/** What a bench shows before its worker has made the version, and the first so many phrases. */
export function openingOf(db: Db, { pieceId, document, show, first }: Shown & { readonly first: number }) {
  const version = realiseDocument(db, pieceId, document);
  const { level } = document.recipe;
  return {
    opening: {
      form: version.form,
      numbers: version.score.measures.map((m) => m.number),
      difficulty: version.difficulty.map((d) => d.score),
      level,
      levelName: levelNumbered(level, studioLevels(db)).name,
      key: version.key,
      accountText: version.accountText,
    },
    sheets: sheetsOf(version, show, 0, first),
  };
}

/** Phrases of a version from one to before another, each with the section that begins there. */
export function phraseSheets(
  db: Db,
  { pieceId, document, show, from, to }: Shown & { readonly from: number; readonly to: number },
) {
  const version = realiseDocument(db, pieceId, document);
  const { form } = version;
  const sheets = sheetsOf(version, show, from, to);
  return form.phrases.slice(from, to).map((phrase, i) => {
    const section = form.sections[phrase.section]!;
    return {
      from: phrase.from,
      heading: section.from === phrase.from ? section.label : '',
      sheet: sheets[i]!,
    };
  });
}

/** Stretches of measures, by their ids, as large sheets: what a lesson shows. One that is not in the version is left out. */
export function stretchSheets(
  db: Db,
  { pieceId, document, show, chunks }: Of & { readonly show: LargeWish; readonly chunks: readonly string[] },
): { readonly chunk: string; readonly sheets: readonly Sheet[] }[] {
  const version = realiseDocument(db, pieceId, document);
  const ids = version.score.measures.map((m) => m.id);
  return chunks.flatMap((chunk) => {
    const places = placesOf(ids, chunk);
    return places ? [{ chunk, sheets: largeSheets(version, places, show) }] : [];
  });
}

/** What a practice room plays, hears and shows of a version: its music, and stretches of measures as large sheets. */
export function roomMusic(
  db: Db,
  of: Of & { readonly show: LargeWish; readonly chunks: readonly string[] },
): {
  readonly music: Pick<Version, 'score' | 'feel' | 'counts'>;
  readonly stretches: ReturnType<typeof stretchSheets>;
} {
  const { score, feel, counts } = realiseDocument(db, of.pieceId, of.document);
  return { music: { score, feel, counts }, stretches: stretchSheets(db, of) };
}

/** One phrase by itself, to be read at sight: the phrases go round. */
export function sightSheet(
  db: Db,
  { pieceId, document, show, phrase }: Shown & { readonly phrase: number },
): { readonly sheet: Sheet; readonly measures: number; readonly reading: readonly Reading[] } {
  const version = realiseDocument(db, pieceId, document);
  const { phrases } = version.form;
  const { from, to } = phrases[phrase % phrases.length]!;
  return {
    sheet: sheetOf(version, { from, to }, { ...show, metre: true }),
    measures: to - from + 1,
    // Read at sight: without fingers and chords, as on the page.
    reading: readingOf({ score: version.score, fingers: {} }, { from, to }),
  };
}

interface Compared {
  readonly pieceId: string;
  readonly documents: readonly [VersionDocument, VersionDocument];
  readonly show: SheetWish;
  readonly from: number;
  readonly to: number;
}

/** Phrases of one version beside the same measures of another, with the measures in which they differ and how. */
export function comparedPhrases(db: Db, { pieceId, documents, show, from, to }: Compared) {
  const [one, other] = documents.map((document) => realiseDocument(db, pieceId, document)) as [
    Version,
    Version,
  ];
  const numbers = one.score.measures.map((m) => m.number);
  const placeOf = new Map(other.score.measures.map((m) => [m.id, m.index]));
  return {
    count: one.form.phrases.length,
    phrases: one.form.phrases.slice(from, to).map((phrase) => {
      const differences = differencesBetween(one, other, phrase);
      const section = one.form.sections[phrase.section]!;
      const [first, last] = [phrase.from, phrase.to].map((i) => placeOf.get(one.score.measures[i]!.id));
      return {
        from: phrase.from,
        heading: section.from === phrase.from ? section.label : '',
        name: measuresText(numbers, phrase.from, phrase.to),
        /** Measures that differ, by index in each version; and in words, neighbors together. */
        differences: differences.map(({ measure, other: twin }) => ({ measure, other: twin })),
        says: runsOf(differences).map(
          (run) => `${capital(measuresText(numbers, run.from, run.to))}: ${run.says}`,
        ),
        sheets: [
          sheetOf(one, phrase, show),
          ...(first !== undefined && last !== undefined && last >= first
            ? [sheetOf(other, { from: first, to: last }, show)]
            : []),
        ],
        readings: [
          readingOf(one, phrase),
          ...(first !== undefined && last !== undefined && last >= first
            ? [readingOf(other, { from: first, to: last })]
            : []),
        ],
      };
    }),
  };
}

/** A version at its level, and the sheet of one phrase in it. */
export function atLevel(db: Db, { pieceId, document, show, phrase }: Shown & { readonly phrase: number }) {
  const version = realiseDocument(db, pieceId, document);
  const at = Math.min(phrase, version.form.phrases.length - 1);
  return {
    key: keyName(version.key),
    hard: scoreOfWhole(version.difficulty),
    account: version.accountText,
    form: version.form,
    numbers: version.score.measures.map((m) => m.number),
    sheet: sheetOf(version, version.form.phrases[at]!, show),
    reading: readingOf(version, version.form.phrases[at]!),
  };
}

/** All of a version note by note, for who hears it read out. */
export function wholeReading(db: Db, { pieceId, document }: Of): Reading[] {
  const version = realiseDocument(db, pieceId, document);
  return readingOf(version, { from: 0, to: version.score.measures.length - 1 });
}

/** What is decided in a version, in words, with where it stands and why what is parked does not hold. */
export function decisionsPlaced(db: Db, { pieceId, document }: Of) {
  const { parked, score, form } = realiseDocument(db, pieceId, document);
  const { score: source } = preparedPiece(db, pieceId);
  // By subject: the stages may have made equal decisions one object.
  const why = new Map(parked.map((p) => [subjectOf(p.decision), p.why]));
  return listed(document).map((decision) => ({
    subject: subjectOf(decision),
    kind: kindOf(decision.kind).name,
    /** What the bench opens at. */
    at:
      'note' in decision.at
        ? decision.at.note
        : 'measure' in decision.at
          ? decision.at.measure
          : 'range' in decision.at
            ? decision.at.range[0]
            : 'section' in decision.at
              ? decision.at.section[0]
              : null,
    says: decisionText(decision),
    where: placeText(decision.at, { score, form }),
    parked: why.get(subjectOf(decision)) ?? null,
    /** It can be put right in the source instead, for every version. */
    mends: canMend(decision, source),
  }));
}

/** The key that a version is in, as a code. */
export const versionKeyCode = (db: Db, { pieceId, document }: Of): string =>
  keyCode(versionKey(preparedPiece(db, pieceId).score, document.recipe, studioLevels(db)));
