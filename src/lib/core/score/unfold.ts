/**
 * The way through a piece: written repeats, numbered endings, da capo, dal segno, coda and fine unfolded into the order
 * in which measures are played. After a jump repeats are not taken again and the last ending is played, as is usual.
 */
import type { Measure } from './score';

/** No piece is played for longer than this; a route that would be is broken off (and is a fault of the source). */
const MOST_PLAYED = 20_000;

/** The passes on which an ending is played: "1, 2" and "1-3" both read as numbers. */
function passesOf(ending: string): number[] {
  return ending.split(/[,;\s]+/).flatMap((text) => {
    const [from, to] = text.split('-').map((n) => parseInt(n, 10));
    if (!from) return [];
    return Array.from({ length: Math.max(1, (to || from) - from + 1) }, (_, i) => from + i);
  });
}

/** Indices of the measures in playing order. */
export function playingOrder(measures: readonly Measure[]): number[] {
  const order: number[] = [];
  // Many programs print the coda sign twice and say no more: the first is where one leaves for the second.
  const codas = measures.flatMap((m, i) => (m.route?.coda ? [i] : []));
  const leavesAt = (i: number): boolean =>
    measures[i]!.route?.toCoda === true || (codas.length > 1 && i === codas[0]);
  const lastPass = passesBySection(measures);
  let start = 0; // where the current repeat goes back to
  let pass = 1;
  let jumped = false;
  for (let i = 0; i < measures.length && order.length < MOST_PLAYED;) {
    const measure = measures[i]!;
    if (measure.repeatStart && i !== start) [start, pass] = [i, 1];
    if (measure.ending && !passesOf(measure.ending).includes(jumped ? lastPass[i]! : pass)) {
      i = endOfEnding(measures, i) + 1;
      continue;
    }
    order.push(i);
    const route = jumped ? measure.route : undefined;
    if (route?.fine) break;
    if (jumped && leavesAt(i)) {
      const coda = codas.find((c) => c > i);
      if (coda !== undefined) {
        i = coda;
        continue;
      }
    }
    if (measure.repeatEnd && !jumped && pass < lastPass[i]!) {
      pass += 1;
      i = start;
      continue;
    }
    if (measure.route?.jump && !jumped) {
      jumped = true;
      const segno = measures.findIndex((m) => m.route?.segno);
      i = measure.route.jump === 'dal segno' && segno >= 0 ? segno : 0;
      continue;
    }
    const closes = measure.endingEnd && passesOf(endingAt(measures, i) ?? '').includes(lastPass[i]!);
    if (measure.repeatEnd || closes) [start, pass] = [i + 1, 1];
    i += 1;
  }
  return order;
}

/** Numbers of the ending in which a measure lies. */
function endingAt(measures: readonly Measure[], index: number): string | undefined {
  for (let i = index; i >= 0; i--) {
    if (measures[i]!.ending) return measures[i]!.ending;
    if (i < index && (measures[i]!.endingEnd || measures[i]!.repeatEnd)) return undefined;
  }
  return undefined;
}

function endOfEnding(measures: readonly Measure[], from: number): number {
  for (let i = from; i < measures.length; i++)
    if (measures[i]!.endingEnd || measures[i]!.repeatEnd || measures[i + 1]?.ending) return i;
  return measures.length - 1;
}

/** For each measure how often the repeated section around it is played: twice, or as often as its endings say. */
function passesBySection(measures: readonly Measure[]): number[] {
  const passes = new Array<number>(measures.length).fill(2);
  let from = 0;
  let most = 2;
  const close = (to: number): void => {
    passes.fill(most, from, to + 1);
    from = to + 1;
    most = 2;
  };
  measures.forEach((measure, i) => {
    if (measure.repeatStart && i > from) close(i - 1);
    if (measure.ending) most = Math.max(most, ...passesOf(measure.ending));
    if (measure.repeatTimes) most = Math.max(most, measure.repeatTimes);
    const goesOn = measures[i + 1]?.ending !== undefined;
    if ((measure.repeatEnd || measure.endingEnd) && !goesOn) close(i);
  });
  close(measures.length - 1);
  return passes;
}
