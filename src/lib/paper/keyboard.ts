/** A keyboard on paper with both hands on it: squares are the left hand's, circles the right's, filled where a finger stays. */
import { isBlackKey } from '$core/theory/pitch';
import { HAND_COLOURS, INK, PAPER } from '$lib/engrave/look';
import { element, type SvgElement } from '$lib/engrave/svg';
import { round, textAt } from './text';

export interface KeyMark {
  readonly midi: number;
  readonly hand: 'right' | 'left';
  readonly finger?: number;
  /** It has its finger from before. */
  readonly stays?: boolean;
}

interface Keyboard {
  readonly drawn: readonly SvgElement[];
  readonly height: number;
  readonly width: number;
}

const KEY_LINE = '#9aa0b0';
/** Of the width of a white key. */
const SHAPE = { white: 4.1, black: 2.5, blackWidth: 0.58, mark: 0.34, least: 2.6, most: 5.2 } as const;
/** Marks are readable from so many points on. */
const FINGER_SIZE = { least: 7, most: 12 } as const;

/** The white key at or below, and at or above, a key. */
const whiteBelow = (midi: number): number => (isBlackKey(midi) ? midi - 1 : midi);
const whiteAbove = (midi: number): number => (isBlackKey(midi) ? midi + 1 : midi);

/** From C or F to B or E: octaves are seen by their groups of black keys. */
export function keyRange(midis: readonly number[]): { readonly low: number; readonly high: number } {
  if (midis.length === 0) return { low: 48, high: 71 };
  let [low, high] = [whiteBelow(Math.min(...midis)), whiteAbove(Math.max(...midis))];
  while (low % 12 !== 0 && low % 12 !== 5) low -= 1;
  while (high % 12 !== 4 && high % 12 !== 11) high += 1;
  return { low, high };
}

const whitesIn = (low: number, high: number): number =>
  Array.from({ length: high - low + 1 }, (_, i) => low + i).filter((m) => !isBlackKey(m)).length;

/** A keyboard of a width with fingers below it. White keys are no wider than `widest` points. */
export function keyboardPicture(
  { low, high }: { readonly low: number; readonly high: number },
  marks: readonly KeyMark[],
  width: number,
  widest = 13,
): Keyboard {
  const white = Math.min(widest, width / whitesIn(low, high));
  const [tall, short] = [white * SHAPE.white, white * SHAPE.black];
  const black = white * SHAPE.blackWidth;
  const middles = new Map<number, number>();
  const whites: SvgElement[] = [];
  const blacks: SvgElement[] = [];
  let x = 0;
  for (let midi = low; midi <= high; midi++) {
    if (isBlackKey(midi)) {
      middles.set(midi, x);
      blacks.push(
        element('rect', {
          x: round(x - black / 2),
          y: 0,
          width: round(black),
          height: round(short),
          fill: INK,
        }),
      );
      continue;
    }
    middles.set(midi, x + white / 2);
    whites.push(
      element('rect', {
        x: round(x),
        y: 0,
        width: round(white),
        height: round(tall),
        fill: PAPER,
        stroke: KEY_LINE,
        'stroke-width': 0.5,
      }),
    );
    x += white;
  }
  const radius = Math.max(SHAPE.least, Math.min(SHAPE.most, white * SHAPE.mark));
  const size = Math.max(FINGER_SIZE.least, Math.min(FINGER_SIZE.most, white * 0.95));
  const drawnMarks = marks.flatMap((mark) => {
    const at = middles.get(mark.midi);
    if (at === undefined) return [];
    const y = isBlackKey(mark.midi) ? short - radius - 1.2 : tall - radius - 1.6;
    return [
      markOf(mark, at, y, radius),
      ...(mark.finger === undefined
        ? []
        : [textAt(at, tall + size, String(mark.finger), { size, fill: HAND_COLOURS[mark.hand] }, 'middle')]),
    ];
  });
  return { drawn: [...whites, ...blacks, ...drawnMarks], height: tall + size * 1.25, width: x };
}

function markOf({ midi, hand, stays }: KeyMark, x: number, y: number, radius: number): SvgElement {
  const colour = HAND_COLOURS[hand];
  const look = { fill: stays ? colour : PAPER, stroke: colour, 'stroke-width': 1.1, 'data-midi': midi };
  return hand === 'left'
    ? element('rect', {
        x: round(x - radius),
        y: round(y - radius),
        width: round(2 * radius),
        height: round(2 * radius),
        ...look,
      })
    : element('circle', { cx: round(x), cy: round(y), r: round(radius), ...look });
}
