/** What runs into what on a page of music: fingers, counts, words, chord names and the pedal's line, each by its box. */
import type { SvgElement } from '$lib/engrave/svg';
import { boxOf, type Box } from './boxes';

const KINDS = {
  badge: 'finger',
  count: 'count',
  word: 'word',
  sung: 'word',
  harm: 'chord',
  pedal: 'pedal',
} as const;
type Kind = (typeof KINDS)[keyof typeof KINDS] | 'barline';

/** A barline is an upright stroke of the engraver's, thicker than a stem, that nobody names. */
const isBarline = ({ name, attributes: { d = '', 'stroke-width': width } }: SvgElement): boolean =>
  name === 'path' && Number(width) >= BARLINE && /^M(-?[\d.]+)[ ,]-?[\d.]+ ?L\1[ ,]/.test(d);
/** Thickness of a barline in the engraver's units. */
const BARLINE = 27;

interface Marked {
  readonly kind: Kind;
  readonly box: Box;
}

interface Overlap {
  readonly kinds: readonly [Kind, Kind];
  readonly boxes: readonly [Box, Box];
}

/** Everything of a drawing that is looked at, each with its box in the drawing's own units. */
export function marksIn(drawn: readonly SvgElement[]): Marked[] {
  const marks: Marked[] = [];
  const visit = (at: SvgElement, around: readonly SvgElement[]): void => {
    const named = KINDS[(at.attributes.class?.split(' ')[0] ?? '') as keyof typeof KINDS] as Kind | undefined;
    const kind = named ?? (isBarline(at) ? 'barline' : undefined);
    if (kind) {
      // Its box as it stands inside everything around it.
      // Barlines of a line may be one path: each stroke is looked at by itself.
      const strokes =
        kind === 'barline'
          ? (at.attributes.d?.match(/M[^M]+/g) ?? []).map((d) => ({
              ...at,
              attributes: { ...at.attributes, d: d.trim() },
            }))
          : [at];
      for (const stroke of strokes) {
        const inside = around.reduceRight<SvgElement>(
          (inner, outer) => ({ ...outer, children: [inner] }),
          stroke,
        );
        const box = boxOf(inside);
        if (box) marks.push({ kind, box });
      }
      return;
    }
    for (const child of at.children) if (typeof child === 'object') visit(child, [...around, at]);
  };
  for (const at of drawn) visit(at, []);
  return marks;
}

/** Letters may touch by a hair: in points. */
const HAIR = 0.35;

/** Pairs whose boxes meet by more than a hair. The pieces of one pedal line belong together. */
export function overlapsIn(marks: readonly Marked[]): Overlap[] {
  const sorted = [...marks].sort((a, b) => a.box.left - b.box.left);
  const found: Overlap[] = [];
  sorted.forEach((a, i) => {
    for (let k = i + 1; k < sorted.length && sorted[k]!.box.left < a.box.right - HAIR; k++) {
      const b = sorted[k]!;
      if (a.kind === b.kind && (a.kind === 'pedal' || a.kind === 'barline')) continue;
      // A pedal's line goes on over a barline.
      if ([a.kind, b.kind].includes('pedal') && [a.kind, b.kind].includes('barline')) continue;
      const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
      const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
      // A barline has hardly a width of its own.
      const most = a.kind === 'barline' || b.kind === 'barline' ? 0 : HAIR;
      if (high > HAIR && wide > most) found.push({ kinds: [a.kind, b.kind], boxes: [a.box, b.box] });
    }
  });
  return found;
}
