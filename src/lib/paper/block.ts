/** What stands on paper, before it has a page: blocks one below the other, each drawn from its own upper left corner. In points. */
import { INK, QUIET } from '$lib/engrave/look';
import { element, type SvgElement } from '$lib/engrave/svg';
import { ASCENT, LEADING, linesOf, round, textAt, type TextStyle } from './text';

/** What a block is to whoever has the page read out. */
export type Tag = 'H1' | 'H2' | 'H3' | 'P' | 'Figure';

export interface Block {
  readonly height: number;
  readonly drawn: readonly SvgElement[];
  readonly tag: Tag;
  /** What a figure shows, in words; the text of a heading. */
  readonly says: string;
  /** Empty room below, dropped at the end of a page. */
  readonly gap: number;
  /** What it costs to end a page after it: 0 is a good place, NEVER none at all. */
  readonly endsPage: number;
  /** Counts as a system of music, of which none stands alone on a page. */
  readonly isSystem?: boolean;
  /** Begins a page of its own. */
  readonly beginsPage?: boolean;
  /** Where it stands in the outline of the document: 1 for a sheet, 2 for a section in it. */
  readonly outline?: 1 | 2;
  /** What the outline says of it, where that is something else. */
  readonly inOutline?: string;
}

export const NEVER = 1e6;

export const block = (own: Partial<Block> & Pick<Block, 'height' | 'drawn'>): Block => ({
  tag: 'Figure',
  says: '',
  gap: 0,
  endsPage: 0,
  ...own,
});

/** Drawings moved to another place. */
export const moved = (x: number, y: number, drawn: readonly SvgElement[]): SvgElement =>
  element('g', { transform: `translate(${round(x)}, ${round(y)})` }, ...drawn);

/** A line of text that may break, as a block. */
export function paragraph(text: string, width: number, style: TextStyle, own: Partial<Block> = {}): Block {
  const lines = linesOf(text, width, style);
  const step = style.size * LEADING;
  return block({
    height: Math.max(1, lines.length) * step,
    drawn: lines.map((line, i) =>
      textAt(0, i * step + (ASCENT + (LEADING - 1) / 2) * style.size, line, style),
    ),
    tag: 'P',
    says: text,
    gap: 4,
    ...own,
  });
}

export const TEXT: TextStyle = { size: 11 };
export const SMALL: TextStyle = { size: 9.5, fill: QUIET };

/** A heading stays with what it is the heading of. */
export const heading = (text: string, width: number, own: Partial<Block> = {}): Block =>
  paragraph(
    text,
    width,
    { size: 14, isBold: true, fill: INK },
    { tag: 'H2', gap: 5, endsPage: NEVER, outline: 2, ...own },
  );

export const smallHeading = (text: string, width: number, own: Partial<Block> = {}): Block =>
  paragraph(text, width, { size: 11.5, isBold: true }, { tag: 'H3', gap: 3, endsPage: NEVER, ...own });

/** A hairline across. */
export const rule = (width: number, colour: string, y = 0): SvgElement =>
  element('line', { x1: 0, y1: y, x2: width, y2: y, stroke: colour, 'stroke-width': 0.6 });

/** Blocks of one width beside each other in as many columns, row by row; a row is never parted. */
export function columns(blocks: readonly Block[], count: number, width: number, gutter: number): Block[] {
  const each = columnWidth(count, width, gutter);
  return Array.from({ length: Math.ceil(blocks.length / count) }, (_, row) => {
    const own = blocks.slice(row * count, (row + 1) * count);
    return block({
      height: Math.max(...own.map((b) => b.height)),
      drawn: own.map((b, i) => moved(i * (each + gutter), 0, b.drawn)),
      says: own
        .map((b) => b.says)
        .filter(Boolean)
        .join('. '),
      gap: Math.max(...own.map((b) => b.gap)),
      endsPage: Math.max(...own.map((b) => b.endsPage)),
    });
  });
}

export const columnWidth = (count: number, width: number, gutter: number): number =>
  (width - gutter * (count - 1)) / count;

/** Several blocks as one that no page parts. */
export function together(blocks: readonly Block[], own: Partial<Block> = {}): Block {
  let y = 0;
  const drawn = blocks.map((b, i) => {
    const at = moved(0, y, b.drawn);
    y += b.height + (i < blocks.length - 1 ? b.gap : 0);
    return at;
  });
  return block({
    height: y,
    drawn,
    says: blocks
      .map((b) => b.says)
      .filter(Boolean)
      .join('. '),
    gap: blocks.at(-1)?.gap ?? 0,
    ...own,
  });
}
