/** Pages of paper: their size, what stands at their foot, and each as one picture whose unit is the point. */
import { HAIRLINE, QUIET } from '$lib/engrave/look';
import { element, type SvgElement } from '$lib/engrave/svg';
import { block, moved, type Block } from './block';
import { paginate, type Placed } from './paginate';
import { fitting, linesOf, textAt, textWidth, type TextStyle } from './text';

/** Points: 72 to the inch. */
export const PAPERS = {
  a4: { name: 'A4', width: 595.28, height: 841.89 },
  letter: { name: 'Letter', width: 612, height: 792 },
} as const;
type Paper = keyof typeof PAPERS;

const MARGIN = { side: 40, top: 38, foot: 58 } as const;

/** How wide what stands on a page may be. */
export const frameWidth = (paper: Paper): number => PAPERS[paper].width - 2 * MARGIN.side;
export const frameHeight = (paper: Paper): number => PAPERS[paper].height - MARGIN.top - MARGIN.foot;

/** Blocks that belong together, from a page of their own on, and what is said at the foot of each of its pages. */
export interface PaperSheet {
  /** Its name in the outline: "Score". */
  readonly name: string;
  readonly blocks: readonly Block[];
  readonly foot: Foot;
  /** Whose it is: the place among all that the document is for. */
  readonly place: number;
}

export interface Foot {
  /** Studio, piece, level, date, version. */
  readonly line: string;
  /** What has to be said on every page: about rights. */
  readonly notice: string | null;
}

export interface Page {
  readonly width: number;
  readonly height: number;
  readonly sheet: string;
  /** Whose it is, as of its sheet. */
  readonly place: number;
  readonly placed: readonly Placed[];
  /** What stands at its foot, from the page's own corner. */
  readonly foot: readonly SvgElement[];
  readonly footSays: string;
}

/** What is printed at once, or is one file. */
export interface PaperDocument {
  readonly title: string;
  readonly author: string;
  readonly pages: readonly Page[];
}

const FOOT: TextStyle = { size: 8, fill: QUIET };

function footOf(
  paper: Paper,
  { name, foot: { line, notice } }: PaperSheet,
  number: number,
  count: number,
): SvgElement[] {
  const { width, height } = PAPERS[paper];
  const inner = width - 2 * MARGIN.side;
  const of = `${name}, ${number} of ${count}`;
  const y = height - MARGIN.foot + 24;
  const room = inner - textWidth(of, FOOT) - 14;
  return [
    moved(MARGIN.side, y - 12, [
      element('line', { x1: 0, y1: 0, x2: inner, y2: 0, stroke: HAIRLINE, 'stroke-width': 0.6 }),
    ]),
    textAt(MARGIN.side, y, fitting(line, room, FOOT), FOOT),
    textAt(width - MARGIN.side, y, of, FOOT, 'end'),
    ...linesOf(notice ?? '', inner, FOOT).map((text, i) => textAt(MARGIN.side, y + 11 * (i + 1), text, FOOT)),
  ];
}

/** Lays sheets out on pages, each sheet's numbered from 1: they are parted when they are handed out. */
export function laidOut(
  {
    title,
    author,
    sheets,
  }: { readonly title: string; readonly author: string; readonly sheets: readonly PaperSheet[] },
  paper: Paper,
): PaperDocument {
  const { width, height } = PAPERS[paper];
  const empty = [block({ height: 0, drawn: [] })];
  return {
    title,
    author,
    pages: sheets.flatMap((sheet) => {
      const pages = paginate(sheet.blocks.length > 0 ? sheet.blocks : empty, frameHeight(paper));
      return pages.map((placed, i) => ({
        width,
        height,
        sheet: sheet.name,
        place: sheet.place,
        placed,
        foot: footOf(paper, sheet, i + 1, pages.length),
        footSays: [sheet.foot.line, sheet.foot.notice ?? ''].filter(Boolean).join('. '),
      }));
    }),
  };
}

/** Where the frame of a page begins. */
export const FRAME = { x: MARGIN.side, y: MARGIN.top } as const;

/** Signs that stand often on a page are said once, and shown by their name. */
const OFTEN = 3;
const LONG = 60;

function withSigns(drawn: readonly SvgElement[], prefix: string): SvgElement[] {
  const counts = new Map<string, number>();
  const count = (at: SvgElement): void => {
    const { d } = at.attributes;
    if (at.name === 'path' && d && d.length > LONG) counts.set(d, (counts.get(d) ?? 0) + 1);
    for (const child of at.children) if (typeof child === 'object') count(child);
  };
  drawn.forEach(count);
  const names = new Map([...counts].filter(([, n]) => n >= OFTEN).map(([d], i) => [d, `${prefix}${i}`]));
  const shown = (at: SvgElement): SvgElement => {
    const { d, ...rest } = at.attributes;
    const name = at.name === 'path' && d ? names.get(d) : undefined;
    if (name) return element('use', { ...rest, href: `#${name}` });
    return { ...at, children: at.children.map((c) => (typeof c === 'object' ? shown(c) : c)) };
  };
  return [
    element('defs', {}, ...[...names].map(([d, id]) => element('path', { id, d }))),
    ...drawn.map(shown),
  ];
}

/** A page as a picture of its own, the so-manieth of its document. */
export function pagePicture({ width, height, sheet, placed, foot }: Page, place = 0): SvgElement {
  return element(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `0 0 ${width} ${height}`,
      class: 'page',
      role: 'img',
      'aria-label': `Page ${place + 1}: ${sheet}`,
    },
    ...withSigns(
      [...placed.map(({ block: own, y }) => moved(FRAME.x, FRAME.y + y, own.drawn)), ...foot],
      `p${place}-`,
    ),
  );
}
