/**
 * Where lines of music are broken: the cheapest way over all measures of a stretch. A line ends with a phrase wherever it can, a section
 * begins one, and none is much emptier than the others.
 */
import type { Form } from '$core/analysis/form';
import type { Measure } from '$core/score/score';
import type { NaturalWidths } from '$lib/engrave/engrave';

/** Measures of a line, first and last by index. */
export interface Line {
  readonly from: number;
  readonly to: number;
  /** How often the room that it needs goes into the room that there is: below 1 it is too wide. */
  readonly ratio: number;
}

/** Music may be stretched so far without looking thin. */
const EASY = 1.4;
const STRETCHED = 8;
/** And packed so tightly that every note still has its room. */
const TIGHTEST = 1.1;
/** A line that ends within a phrase, and more where it does not part it in halves. */
const INSIDE = 8;
const UNEVEN = 3;
/** A line that goes on from the end of one phrase into a part of the next. */
const ACROSS = 30;
/** A pickup at the end of a line. */
const PARTED_PICKUP = 40;
/** Each line costs something, so that short phrases share one. */
const LINE = 2;

/** Lines of the measures from one to another, whose widths are given, on a width. A measure too wide for it has a line of its own. */
export function linesOn(
  {
    form,
    measures,
  }: { readonly form: Pick<Form, 'sections' | 'phrases'>; readonly measures: readonly Measure[] },
  { from, to }: { readonly from: number; readonly to: number },
  natural: NaturalWidths,
  width: number,
): Line[] {
  const starts = new Set(form.sections.map((s) => s.from));
  const own = measures.slice(from, to + 1).map((m, i) => {
    const phrase = form.phrases.find((p) => p.from <= m.index && m.index <= p.to);
    return {
      index: m.index,
      width: natural.measures[i] ?? 0,
      isPickup: m.number === '0',
      endsPhrase: !phrase || phrase.to === m.index,
      /** How far from the middle of its phrase its end is, in measures. */
      uneven: phrase ? Math.abs(m.index + 0.5 - (phrase.from + phrase.to) / 2) : 0,
    };
  });
  const room = width - natural.clefs;
  const best: { cost: number; at: number; ratio: number }[] = [{ cost: 0, at: 0, ratio: 1 }];
  for (let end = 1; end <= own.length; end++) {
    best[end] = { cost: Infinity, at: end - 1, ratio: 1 };
    const last = own[end - 1]!;
    const isEnd = end === own.length;
    const endCost =
      LINE +
      (last.endsPhrase || isEnd ? 0 : INSIDE + UNEVEN * last.uneven) +
      (!isEnd && last.isPickup ? PARTED_PICKUP : 0);
    let used = 0;
    let isAcross = false;
    for (let at = end - 1; at >= 0; at--) {
      used += own[at]!.width;
      isAcross ||= at < end - 1 && own[at]!.endsPhrase && !last.endsPhrase && !isEnd;
      const ratio = room / Math.max(1, used);
      if (ratio < TIGHTEST && at < end - 1) break;
      const looseness = Math.min(1, Math.max(0, ratio - EASY));
      const cost = best[at]!.cost + endCost + (isAcross ? ACROSS : 0) + STRETCHED * looseness ** 2;
      if (cost < best[end]!.cost) best[end] = { cost, at, ratio };
      // A section begins a line, except that its pickup has led into it.
      if (starts.has(own[at]!.index) && !own[at - 1]?.isPickup) break;
    }
  }
  const lines: Line[] = [];
  for (let end = own.length; end > 0; end = best[end]!.at)
    lines.unshift({
      from: own[best[end]!.at]!.index,
      to: own[end - 1]!.index,
      ratio: best[end]!.ratio,
    });
  return lines;
}
