/** Words on paper: measured and broken into lines here, so that a page is the same in print, in a PDF and on the screen. Sizes in points. */
import { INK, liftOf } from '$lib/engrave/look';
import { element, type SvgElement } from '$lib/engrave/svg';
import { cssFamily, runsOf, widthOf, type Face, type Family } from './faces';

export interface TextStyle {
  readonly size: number;
  readonly family?: Family;
  readonly isBold?: boolean;
  readonly isItalic?: boolean;
  readonly fill?: string;
}

const faceOf = ({ family = 'sans', isBold = false, isItalic = false }: TextStyle): Face => ({
  family,
  isBold,
  isItalic,
});

/** Signs of music are drawn small in their face: beside letters they are set so much larger. */
const SIGN_SCALE = 1.3;

/** How wide a text is, in points. */
export function textWidth(text: string, style: TextStyle): number {
  const face = faceOf(style);
  return runsOf(text, face).reduce(
    (sum, run) => sum + widthOf(run.text, face) * style.size * (run.isSign ? SIGN_SCALE : 1),
    0,
  );
}

/** Of the size: how far letters rise above their line, and from one line to the next. */
export const ASCENT = 0.75;
export const LEADING = 1.35;

/** The letters as they are, signs of music larger and in the middle of them. */
function stretches(text: string, style: TextStyle): (SvgElement | string)[] {
  let lifted = 0;
  return runsOf(text, faceOf(style)).map((run) => {
    const lift = run.isSign ? liftOf(run.text) * style.size : 0;
    const by = lifted - lift;
    lifted = lift;
    if (by === 0 && !run.isSign) return run.text;
    const look: Record<string, number> = {};
    if (run.isSign) look['font-size'] = round(style.size * SIGN_SCALE);
    if (by !== 0) look.dy = round(by);
    return element('tspan', look, run.text);
  });
}

/** A text whose line begins, has its middle or ends at a place. */
export function textAt(
  x: number,
  y: number,
  text: string,
  style: TextStyle,
  anchor: 'start' | 'middle' | 'end' = 'start',
): SvgElement {
  const share = { start: 0, middle: 0.5, end: 1 }[anchor];
  return element(
    'text',
    {
      x: round(x - share * textWidth(text, style)),
      y: round(y),
      'font-size': style.size,
      'font-family': cssFamily(style.family ?? 'sans'),
      ...(style.isBold ? { 'font-weight': style.family === 'words' ? 700 : 600 } : {}),
      ...(style.isItalic ? { 'font-style': 'italic' } : {}),
      fill: style.fill ?? INK,
      stroke: 'none',
    },
    ...stretches(text, style),
  );
}

/** Hundredths of a point are finer than any printer. */
export const round = (n: number): number => Math.round(n * 100) / 100;

/** A text in lines no wider than a width; a word that is wider is broken between its letters. */
export function linesOf(text: string, width: number, style: TextStyle): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text
    .split(/\s+/)
    .filter(Boolean)
    .flatMap((w) => pieces(w, width, style))) {
    const longer = line ? `${line} ${word}` : word;
    if (line && textWidth(longer, style) > width) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  return line ? [...lines, line] : lines;
}

function pieces(word: string, width: number, style: TextStyle): string[] {
  if (textWidth(word, style) <= width) return [word];
  const parts: string[] = [];
  let part = '';
  for (const letter of word) {
    if (part && textWidth(part + letter, style) > width) {
      parts.push(part);
      part = '';
    }
    part += letter;
  }
  return [...parts, part];
}

/** A text cut so that it is no wider than a width, with an ellipsis where something is missing. */
export function fitting(text: string, width: number, style: TextStyle): string {
  if (textWidth(text, style) <= width) return text;
  let kept = [...text];
  while (kept.length > 1 && textWidth(`${kept.join('').trimEnd()}…`, style) > width) kept = kept.slice(0, -1);
  return `${kept.join('').trimEnd()}…`;
}
