/** A set of sheets as a document: each made by its own module, in the order that was chosen, with its foot. */
import { levelText } from '$core/arrange/levels';
import { plural } from '$core/plural';
import { SHEETS, type Choices, type SheetId } from './choices';
import { tell } from '$core/pipeline/progress';
import { frameHeight, frameWidth, laidOut, type PaperDocument, type PaperSheet } from './page';
import type { Frame, Source } from './source';
import type { Block } from './block';
import { beyondSheet } from './sheets/beyond';
import { chordSheets } from './sheets/chords';
import { duetSheet } from './sheets/duet';
import { flashcardSheet } from './sheets/flashcards';
import { practiceSheet } from './sheets/practice';
import { scoreSheet } from './sheets/score';
import { slashSheet } from './sheets/slash';

/** What is said at the foot of every page. */
export interface Imprint {
  readonly studio: string;
  /** A line of the studio's own. */
  readonly ownLine: string;
  /** "26 November 2026" */
  readonly date: string;
  readonly areRightsKnown: boolean;
}

/** Whose turn it is among all that the set is for. */
interface Among {
  readonly all: readonly Source[];
  readonly place: number;
}

type Maker = (source: Source, frame: Frame, among: Among) => Promise<Block[]> | Block[];

const MAKERS: Readonly<Record<SheetId, Maker>> = {
  score: scoreSheet,
  chords: chordSheets,
  slash: slashSheet,
  practice: practiceSheet,
  beyond: beyondSheet,
  flashcards: flashcardSheet,
  duet: duetFor,
};

/** In a class the players take the parts in turn, all out of the first one's version: so they fit together. */
function duetFor(source: Source, frame: Frame, { all, place }: Among): Promise<Block[]> {
  const [first] = all;
  if (all.length < 2 || !first) return duetSheet(source, frame);
  const partner = all[place % 2 === 0 ? place + 1 : place - 1] ?? all[place - 1];
  return duetSheet({ ...first, learner: source.learner }, frame, {
    hand: place % 2 === 0 ? 'right' : 'left',
    partner: partner?.learner ?? null,
  });
}

const RIGHTS = 'Copyright unknown: check whether you may arrange and copy this piece.';

/** What the source says of its rights, and that they are not known where nobody has said. */
const noticeOf = ({ version }: Source, { areRightsKnown }: Imprint): string | null =>
  [version.score.rights ?? '', areRightsKnown ? '' : RIGHTS].filter(Boolean).join(' · ') || null;

/** The line at the foot of the pages of a source. */
const footLine = ({ title, recipe, learner, state }: Source, { studio, ownLine, date }: Imprint): string =>
  [studio, ownLine, `${title}, level ${levelText(recipe.level)}`, learner ?? '', date, state]
    .filter(Boolean)
    .join(' · ');

/** Lays out what is chosen for each source in turn. */
export async function handoutDocument(
  sources: readonly Source[],
  choices: Choices,
  imprint: Imprint,
): Promise<PaperDocument> {
  const frame = { width: frameWidth(choices.paper), height: frameHeight(choices.paper) };
  const sheets: PaperSheet[] = [];
  const count = sources.length * choices.sheets.length;
  for (const [place, source] of sources.entries())
    for (const { sheet, copies } of choices.sheets) {
      tell('print', sheets.length / count);
      const blocks = await MAKERS[sheet](source, frame, { all: sources, place });
      const made = sheetOf(source, place, sheet, blocks, imprint);
      for (let copy = 0; copy < copies; copy++) sheets.push(made);
    }
  return documentWith(sources, choices, imprint, sheets);
}

const sheetOf = (
  source: Source,
  place: number,
  sheet: SheetId,
  blocks: readonly Block[],
  imprint: Imprint,
): PaperSheet => ({
  name: SHEETS[sheet].name,
  blocks,
  foot: { line: footLine(source, imprint), notice: noticeOf(source, imprint) },
  place,
});

/** The pages of one source out of a document for several. */
export const documentOfOne = (document: PaperDocument, source: Source, place: number): PaperDocument => ({
  ...document,
  title: titleOf([source]),
  pages: document.pages.filter((page) => page.place === place),
});

const documentWith = (
  sources: readonly Source[],
  choices: Choices,
  { studio }: Imprint,
  sheets: readonly PaperSheet[],
): PaperDocument => laidOut({ title: titleOf(sources), author: studio, sheets }, choices.paper);

/** What a page holds at most, in measures: rests and long notes in small print. */
const MOST_ON_A_PAGE = 40;

/**
 * The first pages as far as they can be known at once: how the first sheet begins. What follows may still move a line of them. One
 * page is what is engraved at once.
 */
export const handoutBeginning = async (
  sources: readonly Source[],
  choices: Choices,
  imprint: Imprint,
  pages = 1,
): Promise<PaperDocument> => {
  const { sheet } = choices.sheets[0]!;
  const [source] = sources;
  const frame = {
    width: frameWidth(choices.paper),
    height: frameHeight(choices.paper),
    enough: pages === 1 ? 1 : pages * MOST_ON_A_PAGE,
  };
  const blocks = source ? await MAKERS[sheet](source, frame, { all: sources, place: 0 }) : [];
  const made = source ? [sheetOf(source, 0, sheet, blocks, imprint)] : [];
  const document = documentWith(sources, choices, imprint, made);
  return { ...document, pages: document.pages.slice(0, pages) };
};

const titleOf = (sources: readonly Source[]): string => {
  const [first] = sources;
  if (!first) return 'Handout';
  const whose = sources.length > 1 ? plural(sources.length, 'student') : (first.learner ?? '');
  return [first.title, `level ${levelText(first.recipe.level)}`, whose].filter(Boolean).join(', ');
};

/** What a file of it is called, without an ending. */
export function handoutName(sources: readonly Source[], choices: Choices): string {
  const what = choices.sheets.length === 1 ? SHEETS[choices.sheets[0]!.sheet].name : 'Handout';
  return `${titleOf(sources)} - ${what}`;
}
