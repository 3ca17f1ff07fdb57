/** Where the stones of a path lie: evenly along the line, higher where the measure is harder. The line is never longer than its place. */
import type { PathItem } from '$core/analysis/form';

interface Stone {
  readonly item: PathItem;
  readonly x: number;
  readonly y: number;
  /** Its share of the line, in pixels. */
  readonly room: number;
}

interface PathShape {
  readonly stones: readonly Stone[];
  readonly width: number;
  readonly height: number;
  /** Width of one measure. */
  readonly unit: number;
  /** Extent of each section, by its index. */
  readonly sections: readonly { readonly index: number; readonly from: number; readonly to: number }[];
}

interface PathMetrics {
  readonly width: number;
  /** Room for the stones, above the section lines. */
  readonly rise: number;
}

const MARGIN = 14;
/** Above the highest stone: room for what marks it. */
const TOP = 15;
/** A folded run is wider than a measure, as far as there is room: its label should fit. */
const AGAIN_SHARE = 2.6;
/** Below this width of a measure a folded run is no wider than one. */
const CROWDED = 10;
/** The height of the scale, unless something in the piece is harder: easy pieces stay low on it. */
const TOP_SCORE = 45;

/** Lays out a folded path. `difficulty` is by measure index, 0 to 100. */
export function layPath(
  items: readonly PathItem[],
  difficulty: readonly number[],
  { width, rise }: PathMetrics,
): PathShape {
  const inner = width - 2 * MARGIN;
  const shareOf = (again: number) => items.map((item) => (item.kind === 'again' ? again : 1));
  const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) || 1;
  const wide = shareOf(AGAIN_SHARE);
  const shares = inner / sum(wide) < CROWDED ? shareOf(1) : wide;
  const unit = inner / sum(shares);
  const top = Math.max(TOP_SCORE, ...difficulty);
  // A chart has no notes: nothing in it is harder than the rest.
  const isFlat = difficulty.every((d) => d === 0);
  let at = MARGIN;
  const stones = items.map((item, i): Stone => {
    const room = shares[i]! * unit;
    const x = at + room / 2;
    at += room;
    const score = difficulty[item.kind === 'measure' ? item.measure : item.from] ?? 0;
    return { item, x, y: TOP + rise * (isFlat ? 0.5 : 1 - score / top), room };
  });
  const bySection = new Map<number, { index: number; from: number; to: number }>();
  for (const { item, x, room } of stones) {
    const half = Math.max(0.5, room / 2 - Math.min(3, room / 6));
    const known = bySection.get(item.section);
    if (known) known.to = x + half;
    else bySection.set(item.section, { index: item.section, from: x - half, to: x + half });
  }
  return { stones, width, unit, height: rise + TOP + 10, sections: [...bySection.values()] };
}

/** The measure whose stone is nearest to a place on the line. */
export function measureNear({ stones }: PathShape, x: number): number | undefined {
  const nearest = stones.reduce<Stone | undefined>(
    (best, stone) => (best && Math.abs(best.x - x) <= Math.abs(stone.x - x) ? best : stone),
    undefined,
  );
  if (!nearest) return undefined;
  const { item } = nearest;
  if (item.kind === 'measure') return item.measure;
  const share = (x - nearest.x + nearest.room / 2) / nearest.room;
  const count = item.to - item.from + 1;
  return item.from + Math.min(count - 1, Math.max(0, Math.floor(share * count)));
}
