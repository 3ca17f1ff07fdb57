/**
 * Our own pictures drawn into a PDF: the few elements that they are made of (groups that are moved and scaled, paths, shapes, and words),
 * by pdfkit's own drawing.
 */
import { INK } from '$lib/engrave/look';
import type { SvgElement } from '$lib/engrave/svg';
import { changesIn, faceIn } from './attributes';
import { bytesOf, runsOf, widthOf, type Face } from './faces';

type Doc = PDFKit.PDFDocument;

/** What an element has from those around it. */
interface Look {
  readonly fill: string;
  readonly stroke: string;
  readonly width: number;
  readonly size: number;
  readonly face: Face;
  readonly anchor: string;
}

const PLAIN: Look = {
  fill: INK,
  stroke: 'none',
  width: 1,
  size: 0,
  face: { family: 'sans', isBold: false, isItalic: false },
  anchor: 'start',
};

const number = (text: string | undefined): number => (text === undefined ? 0 : parseFloat(text));
const colour = (text: string): string => (text === 'currentColor' ? INK : text);

function lookOf({ attributes: a }: SvgElement, around: Look): Look {
  return {
    fill: a.fill === undefined ? around.fill : colour(a.fill),
    stroke: a.stroke === undefined ? around.stroke : colour(a.stroke),
    width: a['stroke-width'] === undefined ? around.width : number(a['stroke-width']),
    size: a['font-size'] === undefined ? around.size : number(a['font-size']),
    face: faceIn(a, around.face),
    anchor: a['text-anchor'] ?? around.anchor,
  };
}

/** Faces that a document has embedded. */
export type Embedded = Set<string>;

/** Draws elements from a place of the page in hand. */
export function draw(doc: Doc, drawn: readonly SvgElement[], x: number, y: number, faces: Embedded): void {
  doc.save();
  doc.translate(x, y);
  for (const at of drawn) drawElement(doc, at, PLAIN, faces);
  doc.restore();
}

const isSeen = (paint: string): boolean => paint !== 'none' && paint !== 'transparent';

function drawElement(doc: Doc, at: SvgElement, around: Look, faces: Embedded): void {
  const look = lookOf(at, around);
  if (at.name === 'text') return drawText(doc, at, look, faces);
  if (at.name === 'title' || at.name === 'desc') return;
  const { transform } = at.attributes;
  if (transform) {
    doc.save();
    transformBy(doc, at.attributes);
  }
  if (at.name === 'g' || at.name === 'svg') {
    for (const child of at.children) if (typeof child !== 'string') drawElement(doc, child, look, faces);
  } else if ((isSeen(look.fill) || isSeen(look.stroke)) && outline(doc, at)) paint(doc, at, look);
  if (transform) doc.restore();
}

function transformBy(doc: Doc, attributes: SvgElement['attributes']): void {
  for (const { kind, x, y } of changesIn(attributes))
    if (kind === 'translate') doc.translate(x, y);
    else doc.transform(x, 0, 0, y, 0, 0);
}

/** Traces a shape; false for what is none. */
function outline(doc: Doc, { name, attributes: a }: SvgElement): boolean {
  switch (name) {
    case 'path':
      doc.path(a.d ?? '');
      return true;
    case 'rect': {
      const [x, y, width, height] = [number(a.x), number(a.y), number(a.width), number(a.height)];
      if (a.rx) doc.roundedRect(x, y, width, height, number(a.rx));
      else doc.rect(x, y, width, height);
      return true;
    }
    case 'circle':
      doc.circle(number(a.cx), number(a.cy), number(a.r));
      return true;
    case 'ellipse':
      doc.ellipse(number(a.cx), number(a.cy), number(a.rx), number(a.ry));
      return true;
    case 'line':
      doc.moveTo(number(a.x1), number(a.y1)).lineTo(number(a.x2), number(a.y2));
      return true;
    case 'polygon':
    case 'polyline': {
      const list = (a.points ?? '').split(/[ ,]+/).filter(Boolean).map(Number);
      for (let i = 0; i + 1 < list.length; i += 2)
        if (i === 0) doc.moveTo(list[0]!, list[1]!);
        else doc.lineTo(list[i]!, list[i + 1]!);
      if (name === 'polygon') doc.closePath();
      return list.length > 2;
    }
    default:
      return false;
  }
}

/** A stroke as thin as this, of the colour that it surrounds, only makes signs heavier where a screen draws no thinner line. */
const HAIR = 1;

function paint(doc: Doc, { name, attributes: a }: SvgElement, look: Look): void {
  const { fill, width } = look;
  const stroke = look.stroke === fill && width <= HAIR && name !== 'line' ? 'none' : look.stroke;
  const dashes = a['stroke-dasharray']?.split(/[ ,]+/).map(Number);
  if (isSeen(stroke)) {
    doc.lineWidth(width);
    if (a['stroke-linecap']) doc.lineCap(a['stroke-linecap'] as 'round');
    if (a['stroke-linejoin']) doc.lineJoin(a['stroke-linejoin'] as 'round');
    if (dashes) doc.dash(dashes[0]!, { space: dashes[1] ?? dashes[0]! });
  }
  // A line has no inside.
  const isFilled = isSeen(fill) && name !== 'line';
  if (isFilled && isSeen(stroke)) doc.fillAndStroke(fill, stroke);
  else if (isFilled) doc.fill(fill);
  else if (isSeen(stroke)) doc.stroke(stroke);
  if (isSeen(stroke)) {
    if (dashes) doc.undash();
    if (a['stroke-linecap']) doc.lineCap('butt');
    if (a['stroke-linejoin']) doc.lineJoin('miter');
  }
}

interface Piece {
  readonly text: string;
  readonly look: Look;
  readonly x: number | undefined;
  readonly y: number | undefined;
  readonly dx: number;
  readonly dy: number;
}

/** The letters of a text in order, each stretch with where it says that it stands. */
function piecesOf(at: SvgElement, look: Look): Piece[] {
  const { x, y, dx, dy } = at.attributes;
  let place = {
    x: x === undefined ? undefined : number(x),
    y: y === undefined ? undefined : number(y),
    dx: number(dx),
    dy: number(dy),
  };
  return at.children.flatMap((child): Piece[] => {
    const inside: Piece[] =
      typeof child === 'string'
        ? child === ''
          ? []
          : [{ text: child, look, x: undefined, y: undefined, dx: 0, dy: 0 }]
        : child.name === 'tspan'
          ? piecesOf(child, lookOf(child, look))
          : [];
    const [first, ...others] = inside;
    if (!first) return [];
    const placed = {
      ...first,
      x: first.x ?? place.x,
      y: first.y ?? place.y,
      dx: first.dx + place.dx,
      dy: first.dy + place.dy,
    };
    place = { x: undefined, y: undefined, dx: 0, dy: 0 };
    return [placed, ...others];
  });
}

function drawText(doc: Doc, at: SvgElement, look: Look, faces: Embedded): void {
  const pieces = piecesOf(at, look);
  const widths = pieces.map((p) => widthOf(p.text, p.look.face) * p.look.size);
  const { transform } = at.attributes;
  if (transform) {
    doc.save();
    transformBy(doc, at.attributes);
  }
  let [x, y] = [0, 0];
  pieces.forEach((piece, i) => {
    if (piece.x !== undefined) {
      // What stands at a place has its middle or its end there as a whole, as far as the next place.
      const next = pieces.findIndex((p, k) => k > i && p.x !== undefined);
      const width = widths.slice(i, next < 0 ? undefined : next).reduce((a, b) => a + b, 0);
      x = piece.x - (piece.look.anchor === 'middle' ? width / 2 : piece.look.anchor === 'end' ? width : 0);
    }
    if (piece.y !== undefined) y = piece.y;
    x += piece.dx;
    y += piece.dy;
    if (piece.look.size > 0 && isSeen(piece.look.fill)) x = drawRuns(doc, piece, x, y, faces);
  });
  if (transform) doc.restore();
}

/** Draws a stretch of letters, from one file after another; the place behind it comes back. */
function drawRuns(doc: Doc, { text, look }: Piece, from: number, y: number, faces: Embedded): number {
  let x = from;
  for (const run of runsOf(text, look.face)) {
    if (!faces.has(run.file)) {
      doc.registerFont(run.file, bytesOf(run.file));
      faces.add(run.file);
    }
    doc.font(run.file, look.size).fillColor(look.fill);
    doc.text(run.text, x, y, { lineBreak: false, baseline: 'alphabetic' });
    x += widthOf(run.text, look.face) * look.size;
  }
  return x;
}
