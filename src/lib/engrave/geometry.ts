/** Where the engraver has put notes, staves, fingers and lines of words: read off its picture. In its units. */
import { classOf, elements, find, type SvgElement } from './svg';

export interface MeasureBox {
  readonly system: number;
  left: number;
  right: number;
  top: number;
  bottom: number;
  /** Bottom line of the upper staff. */
  upperBottom: number;
}

/** Where the engraver has put notes, staves, fingers and the lyric line. */
export interface Geometry {
  /** Middle of the first head of each note by note id, and whether it is filled. */
  readonly heads: ReadonlyMap<string, { readonly x: number; readonly y: number; readonly isFilled: boolean }>;
  readonly measures: readonly MeasureBox[];
  /** Baseline of the words of a chart in each system. */
  readonly sungY: ReadonlyMap<number, number>;
  /** Baseline of the counts in each system. */
  readonly countY: ReadonlyMap<number, number>;
  /** The engraver's own finger numbers, which keep the room for badges. */
  readonly fingers: readonly { readonly note: string; readonly at: SvgElement; x: number; y: number }[];
}

/** Half a notehead in the engraver's units. */
export const HALF_NOTEHEAD = 113;
/** The code of a filled head in music fonts. */
const FILLED_HEAD = '#E0A4';
/** Which line of lyrics this is. */
export const labelOf = (verse: SvgElement): string | undefined => {
  const label = elements(verse).find((e) => e.name === 'title' && e.attributes.class === 'labelAttr')
    ?.children[0];
  return typeof label === 'string' ? label : undefined;
};

const number = (text: string | undefined): number => Number(text ?? NaN);

/** Reads where things stand. */
export function geometryOf(root: SvgElement): Geometry {
  const heads = new Map<string, { x: number; y: number; isFilled: boolean }>();
  const countY = new Map<number, number>();
  const sungY = new Map<number, number>();
  const measures: MeasureBox[] = [];
  const fingers: Geometry['fingers'][number][] = [];
  let system = -1;
  let staff = 0;

  const visit = (at: SvgElement, note: string, verse: string | undefined): void => {
    const kind = at.name === 'g' ? classOf(at) : '';
    const id = at.attributes['data-id'] ?? '';
    if (kind === 'system') system += 1;
    if (kind === 'measure') {
      measures.push({ system, left: Infinity, right: 0, top: Infinity, bottom: 0, upperBottom: 0 });
      staff = 0;
    }
    if (kind === 'staff') staffLines(at, measures.at(-1)!, (staff += 1));
    if (kind === 'fing') {
      const text = find(at, (e) => e.name === 'text' && e.attributes.x !== undefined);
      const of = at.attributes['data-startid']?.replace(/^#/, '');
      if (text && of)
        fingers.push({
          note: of,
          at,
          x: number(text.attributes.x),
          y: number(text.attributes.y) - 140,
        });
    }
    if (kind === 'notehead') {
      const head = elements(at).find((e) => e.name === 'use');
      const [, x, y] = /translate\((-?\d+), (-?\d+)/.exec(head?.attributes.transform ?? '') ?? [];
      const isFilled = head?.attributes['xlink:href']?.startsWith(FILLED_HEAD) ?? true;
      if (x !== undefined && !heads.has(note))
        heads.set(note, { x: Number(x) + HALF_NOTEHEAD, y: Number(y), isFilled });
    }
    // Line 1 is the counts': the uppermost verse. Names of notes stand below whichever hand plays, also where nothing is counted out.
    if (at.name === 'text' && verse !== undefined && verse !== 'names' && at.attributes.y)
      countY.set(system, Math.min(countY.get(system) ?? Infinity, Number(at.attributes.y)));
    if (at.name === 'text' && verse === 'sung' && at.attributes.y)
      sungY.set(system, Math.max(sungY.get(system) ?? 0, Number(at.attributes.y)));
    const line = kind === 'verse' ? (labelOf(at) ?? '') : verse;
    for (const child of elements(at)) visit(child, kind === 'note' ? id : note, line);
  };
  visit(root, '', undefined);
  return { heads, measures, countY, sungY, fingers };
}

/** From where to where each measure reaches, in the engraver's units. */
export const measureSpans = (
  root: SvgElement,
): readonly { readonly left: number; readonly right: number }[] => geometryOf(root).measures;

/** The lines of a staff bound the measure. */
function staffLines(staff: SvgElement, box: MeasureBox, index: number): void {
  const ys: number[] = [];
  for (const { name, attributes } of elements(staff)) {
    const line = name === 'path' && /^M(-?\d+) (-?\d+) L(-?\d+) (-?\d+)/.exec(attributes.d ?? '');
    if (!line || line[2] !== line[4]) continue;
    const y = Number(line[2]);
    ys.push(y);
    box.left = Math.min(box.left, Number(line[1]));
    box.right = Math.max(box.right, Number(line[3]));
    box.top = Math.min(box.top, y);
    box.bottom = Math.max(box.bottom, y);
  }
  if (index === 1 && ys.length > 0) box.upperBottom = Math.max(...ys);
}
