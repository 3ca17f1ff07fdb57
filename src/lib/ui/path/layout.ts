/** Where the stones of a path lie: evenly along the line, higher where the measure is harder. */
import type { PathItem } from '$core/analysis/form';

export interface Stone {
  readonly item: PathItem;
  readonly x: number;
  readonly y: number;
}

export interface PathShape {
  readonly stones: readonly Stone[];
  readonly width: number;
  readonly height: number;
  /** Width of one measure. */
  readonly unit: number;
  /** Extent of each section, by its index. */
  readonly sections: readonly { readonly index: number; readonly from: number; readonly to: number }[];
}

export interface PathMetrics {
  readonly width: number;
  /** Room for the stones, above the section lines. */
  readonly rise: number;
  readonly narrowest: number;
}

const MARGIN = 18;
/** A folded run is wider than a measure: its label must fit. */
const AGAIN_SHARE = 2.6;
/** The height of the scale, unless something in the piece is harder: easy pieces stay low on it. */
const TOP_SCORE = 45;

/** Lays out a folded path. `difficulty` is by measure index, 0 to 100. */
export function layPath(
  items: readonly PathItem[],
  difficulty: readonly number[],
  metrics: PathMetrics,
): PathShape {
  const shares = items.map((item) => (item.kind === 'again' ? AGAIN_SHARE : 1));
  const total = shares.reduce((a, b) => a + b, 0) || 1;
  const width = Math.max(metrics.width, total * metrics.narrowest + 2 * MARGIN);
  const unit = (width - 2 * MARGIN) / total;
  const top = Math.max(TOP_SCORE, ...difficulty);
  let at = MARGIN;
  const stones = items.map((item, i): Stone => {
    const x = at + (shares[i]! * unit) / 2;
    at += shares[i]! * unit;
    const score = difficulty[item.kind === 'measure' ? item.measure : item.from] ?? 0;
    return { item, x, y: 12 + metrics.rise * (1 - score / top) };
  });
  const bySection = new Map<number, { index: number; from: number; to: number }>();
  stones.forEach(({ item, x }, i) => {
    const half = (shares[i]! * unit) / 2 - 3;
    const known = bySection.get(item.section);
    if (known) known.to = x + half;
    else bySection.set(item.section, { index: item.section, from: x - half, to: x + half });
  });
  return { stones, width, unit, height: metrics.rise + 24, sections: [...bySection.values()] };
}
