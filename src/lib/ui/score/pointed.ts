/** Which note of a picture a pointer means: one that it hits, or the nearest whose head or badge is within reach of a fingertip. */

export interface Pointed {
  readonly x: number;
  readonly y: number;
  /** How far off a note may lie, in CSS pixels. */
  readonly within: number;
}

/** What a head or badge of some 14 pixels lacks on each side to the smallest target of a fingertip (44, WCAG 2.5.5) and of a mouse (24, WCAG 2.5.8). */
export const FINGERTIP = 15;
export const MOUSE = 5;

/** The note whose badge or head an element belongs to. */
export const noteOf = (element: Element): string | undefined =>
  element.closest<SVGElement>('[data-finger-of]')?.dataset.fingerOf ??
  element.closest<SVGElement>('.note[data-id]')?.dataset.id?.replace(/\.\d+$/, '');

/** The note nearest to a place in the picture that an element is in; undefined where none is near enough. */
export function nearestNote(element: Element, { x, y, within }: Pointed): string | undefined {
  const picture = element.closest('svg');
  if (!picture) return undefined;
  let [nearest, distance]: [string | undefined, number] = [undefined, within];
  for (const mark of picture.querySelectorAll('[data-finger-of], .note[data-id] .notehead')) {
    const { left, right, top, bottom } = mark.getBoundingClientRect();
    const away = Math.hypot(Math.max(left - x, 0, x - right), Math.max(top - y, 0, y - bottom));
    if (away >= distance) continue;
    const id = noteOf(mark);
    if (id) [nearest, distance] = [id, away];
  }
  return nearest;
}
