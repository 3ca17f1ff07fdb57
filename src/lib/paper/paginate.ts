/**
 * Which blocks stand on which page: the cheapest way over all of them, so that pages are full, a page ends where it may, and
 * neither a heading nor a system is left alone.
 */
import { NEVER, type Block } from './block';

export interface Placed {
  readonly block: Block;
  /** From the top of the page's frame, in points. */
  readonly y: number;
}

/** What a wholly empty page would cost; room that is left counts by its square. */
const EMPTY = 60;
/** Share of a page that may stay empty, and what each share beyond it costs: a section is split before a third of a page is empty. */
const FREE = 0.2;
const BEYOND = 220;
const emptyCost = (share: number): number => EMPTY * share ** 2 + BEYOND * Math.max(0, share - FREE);
/** One system alone on a page, where there are more. */
const WIDOW = 400;
/** A page more than needed. */
const PAGE = 30;
/** A block that is higher than a page stands on one of its own all the same. */
const OVERFULL = 1e5;

/** Of the gaps between systems: a page that is nearly full is spread, up to so many points each. */
const MOST_SPREAD = 26;

/** Blocks in order on pages of a height. The room on the first page may be less. */
export function paginate(blocks: readonly Block[], height: number): Placed[][] {
  const best: { cost: number; from: number }[] = [{ cost: 0, from: 0 }];
  for (let end = 1; end <= blocks.length; end++) {
    best[end] = { cost: Infinity, from: end - 1 };
    let used = 0;
    for (let from = end - 1; from >= 0; from--) {
      const own = blocks[from]!;
      used += own.height + (from === end - 1 ? 0 : own.gap);
      if (used > height && from < end - 1) break;
      const before = best[from]!.cost;
      const cost = before + costOf(blocks, from, end, used, height);
      if (cost < best[end]!.cost) best[end] = { cost, from };
      if (own.beginsPage) break;
    }
  }
  const pages: Placed[][] = [];
  for (let end = blocks.length; end > 0; end = best[end]!.from) {
    const own = blocks.slice(best[end]!.from, end);
    pages.unshift(placed(own, height, isLastOfSheet(blocks, end)));
  }
  return pages;
}

/** Whether what comes next begins a page in any case: then this one need not be full. */
const isLastOfSheet = (blocks: readonly Block[], end: number): boolean =>
  end === blocks.length || blocks[end]!.beginsPage === true;

function costOf(blocks: readonly Block[], from: number, end: number, used: number, height: number): number {
  const isLast = isLastOfSheet(blocks, end);
  const own = blocks.slice(from, end);
  const systems = own.filter((b) => b.isSystem).length;
  const isWhole = isLast && (from === 0 || blocks[from]!.beginsPage === true);
  return (
    PAGE +
    (used > height ? OVERFULL : 0) +
    (isLast ? 0 : emptyCost(1 - Math.min(1, used / height)) + blocks[end - 1]!.endsPage) +
    (!isWhole && systems === 1 && own.every((b) => b.isSystem || b.endsPage >= NEVER) ? WIDOW : 0)
  );
}

function placed(blocks: readonly Block[], height: number, isLast: boolean): Placed[] {
  const gaps = blocks.slice(0, -1).map((b) => b.gap);
  const used = blocks.reduce((sum, b) => sum + b.height, 0) + gaps.reduce((a, b) => a + b, 0);
  const spreads = blocks.slice(0, -1).filter((b) => b.isSystem).length;
  const more = isLast || spreads === 0 ? 0 : Math.min(MOST_SPREAD, Math.max(0, height - used) / spreads);
  let y = 0;
  return blocks.map((own) => {
    const at = { block: own, y };
    y += own.height + own.gap + (own.isSystem ? more : 0);
    return at;
  });
}
