/** How far drawings reach: of paths by their points (curves by their controls, which they never leave), of words by their letters. */
import type { SvgElement } from '$lib/engrave/svg';
import svgpath from 'svgpath';
import { changesIn, faceIn } from './attributes';
import { widthOf, type Face } from './faces';
import { ASCENT } from './text';

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Of the size: how far letters reach below their line, the deepest first. */
const DESCENTS: readonly (readonly [letters: RegExp, share: number])[] = [
  [/[gjpqy]/, 0.22],
  [/[,;()[\]]/, 0.17],
  [/\//, 0.1],
];
const descentOf = (text: string): number => DESCENTS.find(([letters]) => letters.test(text))?.[1] ?? 0.03;

interface Around {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
  readonly size: number;
  readonly face: Face;
  readonly anchor: string;
}

const PLAIN: Around = {
  scale: 1,
  x: 0,
  y: 0,
  size: 0,
  face: { family: 'sans', isBold: false, isItalic: false },
  anchor: 'start',
};

export const union = (boxes: readonly Box[]): Box | undefined =>
  boxes.length === 0
    ? undefined
    : {
        left: Math.min(...boxes.map((b) => b.left)),
        top: Math.min(...boxes.map((b) => b.top)),
        right: Math.max(...boxes.map((b) => b.right)),
        bottom: Math.max(...boxes.map((b) => b.bottom)),
      };

const num = (text: string | undefined, otherwise = 0): number =>
  text === undefined ? otherwise : parseFloat(text);

/** Moves and even scalings are all that pictures of ours hold, but for what turns a sign of music upside down: its path. */
function within({ name, attributes }: SvgElement, around: Around): Around {
  let { scale, x, y } = around;
  if (name !== 'path')
    for (const change of changesIn(attributes))
      if (change.kind === 'scale') scale *= change.x;
      else [x, y] = [x + scale * change.x, y + scale * change.y];
  const { 'font-size': size, 'text-anchor': anchor } = attributes;
  return {
    scale,
    x,
    y,
    size: size ? num(size) : around.size,
    face: faceIn(attributes, around.face),
    anchor: anchor ?? around.anchor,
  };
}

/** The box of an element; undefined for what draws nothing. */
export function boxOf(at: SvgElement, around: Around = PLAIN): Box | undefined {
  const own = within(at, around);
  if (at.name === 'text') return textBox(at, own);
  if (at.name === 'path') return placed(pathBox(at), own);
  if (at.name === 'title' || at.name === 'desc') return undefined;
  const plain = shapeBox(at);
  if (plain) return placed(plain, own);
  return union(at.children.flatMap((child) => (typeof child === 'string' ? [] : (boxOf(child, own) ?? []))));
}

const placed = (box: Box | undefined, { scale, x, y }: Around): Box | undefined =>
  box && {
    left: x + scale * box.left,
    top: y + scale * box.top,
    right: x + scale * box.right,
    bottom: y + scale * box.bottom,
  };

function shapeBox({ name, attributes: a }: SvgElement): Box | undefined {
  if (name === 'circle' || name === 'ellipse') {
    const [rx, ry] = [num(a.r ?? a.rx), num(a.r ?? a.ry)];
    return { left: num(a.cx) - rx, right: num(a.cx) + rx, top: num(a.cy) - ry, bottom: num(a.cy) + ry };
  }
  if (name === 'rect')
    return {
      left: num(a.x),
      right: num(a.x) + num(a.width),
      top: num(a.y),
      bottom: num(a.y) + num(a.height),
    };
  if (name === 'line')
    return pointsBox([
      [num(a.x1), num(a.y1)],
      [num(a.x2), num(a.y2)],
    ]);
  if (name === 'polygon' || name === 'polyline') {
    const list = (a.points ?? '').split(/[ ,]+/).filter(Boolean).map(Number);
    return pointsBox(
      Array.from({ length: Math.floor(list.length / 2) }, (_, i) => [list[2 * i]!, list[2 * i + 1]!]),
    );
  }
  return undefined;
}

const pointsBox = (points: readonly (readonly [number, number])[]): Box | undefined =>
  union(points.map(([x, y]) => ({ left: x, right: x, top: y, bottom: y })));

function pathBox({ attributes }: SvgElement): Box | undefined {
  const points: [number, number][] = [];
  svgpath(attributes.d ?? '')
    .transform(attributes.transform ?? '')
    .abs()
    .unarc()
    .unshort()
    .iterate(([command, ...n], _, x, y) => {
      if (command === 'H') points.push([n[0]!, y]);
      else if (command === 'V') points.push([x, n[0]!]);
      else for (let i = 0; i + 1 < n.length; i += 2) points.push([n[i]!, n[i + 1]!]);
    });
  return pointsBox(points);
}

/** Stretches of letters follow each other unless they say where they stand. */
function textBox(at: SvgElement, around: Around): Box | undefined {
  const boxes: Box[] = [];
  let [x, y] = [num(at.attributes.x), num(at.attributes.y)];
  const visit = (element: SvgElement, own: Around): void => {
    if (element.attributes.x !== undefined) x = num(element.attributes.x);
    if (element.attributes.y !== undefined) y = num(element.attributes.y);
    x += num(element.attributes.dx);
    y += num(element.attributes.dy);
    for (const child of element.children)
      if (typeof child === 'string') {
        const width = own.size * widthOf(child, own.face);
        const left = x - (own.anchor === 'middle' ? width / 2 : own.anchor === 'end' ? width : 0);
        if (child.trim())
          boxes.push({
            left,
            right: left + width,
            top: y - ASCENT * own.size,
            bottom: y + descentOf(child) * own.size,
          });
        x = left + width;
      } else if (child.name === 'tspan') visit(child, within(child, own));
  };
  visit(at, around);
  return placed(union(boxes), { ...around });
}
