/** An SVG as a tree of elements, for marking it: read with a real parser, written back as text. */
import { SaxesParser } from 'saxes';

export interface SvgElement {
  readonly name: string;
  attributes: Record<string, string>;
  children: (SvgElement | string)[];
}

/** Reads an SVG. Throws where it is not well formed. */
export function parseSvg(text: string): SvgElement {
  const root: SvgElement = { name: '', attributes: {}, children: [] };
  const open: SvgElement[] = [root];
  const parser = new SaxesParser();
  parser.on('opentag', ({ name, attributes }) => {
    const made: SvgElement = { name, attributes: attributes as Record<string, string>, children: [] };
    open.at(-1)!.children.push(made);
    open.push(made);
  });
  parser.on('closetag', () => void open.pop());
  parser.on('text', (content) => {
    const isSpace = content.trim() === '';
    if (!isSpace || ['text', 'tspan'].includes(open.at(-1)!.name)) open.at(-1)!.children.push(content);
  });
  parser.on('error', (error) => {
    throw error;
  });
  parser.write(text).close();
  const svg = root.children.find((child): child is SvgElement => typeof child === 'object');
  if (!svg) throw new Error('There is no picture.');
  return svg;
}

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as it stands in XML: nothing in it can begin an element or end an attribute. */
export const escaped = (text: string): string => text.replace(/[&<>"]/g, (sign) => ESCAPES[sign]!);

/** Writes a tree as text. */
export function writeSvg({ name, attributes, children }: SvgElement): string {
  let text = `<${name}`;
  for (const key in attributes) text += ` ${key}="${escaped(attributes[key]!)}"`;
  if (children.length === 0) return `${text}/>`;
  text += '>';
  for (const child of children) text += typeof child === 'string' ? escaped(child) : writeSvg(child);
  return `${text}</${name}>`;
}

/** An element with its children. */
export const element = (
  name: string,
  attributes: Readonly<Record<string, string | number>>,
  ...children: (SvgElement | string)[]
): SvgElement => ({
  name,
  attributes: Object.fromEntries(Object.entries(attributes).map(([key, value]) => [key, String(value)])),
  children,
});

/** What the engraver calls an element: "note", "staff", "fing". */
export const classOf = ({ attributes }: SvgElement): string =>
  attributes['data-class'] ?? attributes.class?.split(' ')[0] ?? '';

export const elements = ({ children }: SvgElement): SvgElement[] =>
  children.filter((child): child is SvgElement => typeof child === 'object');

/** Every element below one, itself first, in the order of the document. */
export function* walk(from: SvgElement): Generator<SvgElement> {
  yield from;
  for (const child of from.children) if (typeof child === 'object') yield* walk(child);
}

/** The first element below one that answers. */
export function find(from: SvgElement, is: (at: SvgElement) => boolean): SvgElement | undefined {
  for (const at of walk(from)) if (is(at)) return at;
  return undefined;
}
