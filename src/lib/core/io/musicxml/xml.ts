/**
 * XML into a small tree of elements, by saxes: no entities of the file's own are expanded, nothing outside the file is
 * ever fetched, and depth and size are bounded.
 */
import { SaxesParser } from 'saxes';
import { InputError } from '../inputError';

export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlElement[];
  readonly text: string;
  readonly line: number;
}

const MAX_DEPTH = 64;
const MAX_ELEMENTS = 2_000_000;

/** Shared by all elements that have none: a large score has a million elements, most of them leaves. */
const NO_ATTRIBUTES: XmlElement['attributes'] = Object.freeze({});
const NO_CHILDREN: XmlElement[] = [];

/** Parses a document. Throws InputError with the line where the text stops being XML. */
export function parseXml(text: string): XmlElement {
  type Open = { -readonly [K in keyof XmlElement]: XmlElement[K] } & { children: XmlElement[] };
  const parser = new SaxesParser();
  const stack: Open[] = [];
  /** One text for each name of an element. */
  const names = new Map<string, string>();
  let root: Open | undefined;
  let elements = 0;

  const named = (name: string): string => {
    const known = names.get(name);
    if (known !== undefined) return known;
    names.set(name, name);
    return name;
  };
  const addText = (chunk: string): void => {
    const open = stack.at(-1);
    // What stands between elements is line ends and spaces.
    if (open && (open.text !== '' || chunk.trim() !== '')) open.text += chunk;
  };

  parser.on('opentag', (tag) => {
    const element: Open = {
      name: named(tag.name),
      attributes: hasAny(tag.attributes) ? { ...(tag.attributes as Record<string, string>) } : NO_ATTRIBUTES,
      children: NO_CHILDREN,
      text: '',
      line: parser.line,
    };
    elements += 1;
    if (stack.length >= MAX_DEPTH || elements > MAX_ELEMENTS)
      throw new InputError(`The file is nested too deeply or too large to be a score (line ${parser.line}).`);
    const parent = stack.at(-1);
    if (parent) {
      if (parent.children === NO_CHILDREN) parent.children = [element];
      else parent.children.push(element);
    } else root = element;
    stack.push(element);
  });
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.on('closetag', () => void stack.pop());
  parser.on('error', (error) => {
    throw new InputError(
      stack.length > 0 && /unclosed|unexpected end/i.test(error.message)
        ? `The file ends in the middle (line ${parser.line}, inside <${stack.at(-1)!.name}>): it may have been cut off when it was saved or sent.`
        : `The file is not well-formed XML at line ${parser.line}.`,
    );
  });

  parser.write(text).close();
  if (!root) throw new InputError('The file holds no XML at all.');
  return root;
}

const hasAny = (attributes: object): boolean => {
  for (const _name in attributes) return true;
  return false;
};

/** First child of a name. */
export const child = (element: XmlElement | undefined, name: string): XmlElement | undefined =>
  element?.children.find((c) => c.name === name);

export const childrenOf = (element: XmlElement | undefined, name: string): XmlElement[] =>
  element?.children.filter((c) => c.name === name) ?? [];

/** Trimmed text of the first child of a name; undefined where there is none or it is empty. */
export const textOf = (element: XmlElement | undefined, name: string): string | undefined =>
  child(element, name)?.text.trim() || undefined;

/** The number in the first child of a name; undefined where there is none or it is no number. */
export function numberOf(element: XmlElement | undefined, name: string): number | undefined {
  const text = textOf(element, name);
  const value = text === undefined ? NaN : Number(text);
  return Number.isFinite(value) ? value : undefined;
}
