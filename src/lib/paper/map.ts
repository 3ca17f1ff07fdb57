/** The piece as one folded line on paper: a stone per measure, higher where it is harder; what comes again is drawn once. */
import { foldedPath, timesOf } from '$core/analysis/form';
import type { Version } from '$core/version/realise';
import { INK, PAPER, QUIET } from '$lib/engrave/look';
import { layPath } from '$lib/engrave/pathLayout';
import { element, type SvgElement } from '$lib/engrave/svg';
import { block, type Block } from './block';
import { fitting, round, textAt, textWidth, type TextStyle } from './text';

const RISE = 9;
const RADIUS = 3.2;
const LABEL: TextStyle = { size: 8.5, fill: QUIET };
const BELOW = 11;

/** The map of a version as a block of a width. */
export function mapBlock({ form, score, difficulty }: Version, width: number): Block {
  const shape = layPath(
    foldedPath(form),
    difficulty.map((d) => d.score),
    { width, rise: RISE },
  );
  const numbers = score.measures.map((m) => m.number);
  const stones = shape.stones.flatMap(({ item, x, y, room }): SvgElement[] => {
    if (item.kind === 'measure') {
      const r = Math.max(1.2, Math.min(RADIUS, shape.unit * 0.4));
      return [
        element('circle', {
          cx: round(x),
          cy: round(y),
          r: round(r),
          fill: PAPER,
          stroke: INK,
          'stroke-width': 0.9,
        }),
      ];
    }
    const times = timesOf(item);
    const says = `${numbers[item.as]}–${numbers[item.as + item.length - 1]}${times > 1 ? ` ×${times}` : ''}`;
    const wanted = textWidth(says, LABEL) + 8;
    const isNamed = wanted <= room;
    const half = Math.max(2, Math.min(isNamed ? wanted / 2 : 7, room / 2 - 1));
    // Without a name it is no higher than a stone.
    const high = isNamed ? 5.5 : RADIUS;
    return [
      element('rect', {
        x: round(x - half),
        y: round(y - high),
        width: round(2 * half),
        height: round(2 * high),
        rx: round(Math.min(half, high)),
        fill: PAPER,
        stroke: QUIET,
        'stroke-width': 0.7,
        'stroke-dasharray': '2 2',
      }),
      ...(isNamed ? [textAt(x, y + 3, says, LABEL, 'middle')] : []),
    ];
  });
  const sections = shape.sections.flatMap(({ index, from, to }, place) => {
    // Up to where the next name begins: names never run into each other.
    const room = (shape.sections[place + 1]?.from ?? to + 6) - from - 4;
    const name = fitting(form.sections[index]!.label, room, LABEL);
    return [
      element('line', {
        x1: round(from),
        x2: round(to),
        y1: shape.height,
        y2: shape.height,
        stroke: QUIET,
        'stroke-width': 0.7,
      }),
      ...(textWidth(name, LABEL) <= room && (name.length > 1 || form.sections[index]!.label.length === 1)
        ? [textAt(from, shape.height + 9.5, name, LABEL)]
        : []),
    ];
  });
  return block({
    height: shape.height + BELOW,
    drawn: [
      element('polyline', {
        points: shape.stones.map((s) => `${round(s.x)},${round(s.y)}`).join(' '),
        fill: 'none',
        stroke: QUIET,
        'stroke-width': 0.8,
      }),
      ...stones,
      ...sections,
    ],
    says: `Map of the piece: ${form.sections
      .map(
        (s) =>
          `${s.label}, measures ${numbers[s.from]} to ${numbers[s.to]}${s.repeats ? `, as ${s.repeats}` : ''}`,
      )
      .join('; ')}`,
    gap: 10,
    endsPage: 40,
  });
}
