/**
 * XML into a small tree of elements, by saxes: no entities of the file's own are expanded, nothing outside the file is
 * ever fetched, and depth and size are bounded.
 */
import { SaxesParser } from 'saxes';
import { tell } from '../../../pipeline/progress';
import { InputError } from '../../inputError';

export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlElement[];
  readonly text: string;
  readonly line: number;
}

/** Characters after which whoever waits is told how far it is. */
const TOLD_EVERY = 500_000;
const MAX_DEPTH = 64;
const MAX_ELEMENTS = 2_000_000;

/** Shared by all elements that have none: a large score has a million elements, most of them leaves. */
const NO_ATTRIBUTES: XmlElement['attributes'] = Object.freeze({});
const NO_CHILDREN: XmlElement[] = [];
/** Elements above one that is offered to be taken: the root and a child of it. */
const TAKEN_AT = 2;

const SOMETHING = /\S/;

type Open = { -readonly [K in keyof XmlElement]: XmlElement[K] } & { children: XmlElement[] };

/** Where an element stands whose parent is a child of the root. */
export interface Place {
  readonly parent: XmlElement;
  readonly root: XmlElement;
}

/**
 * Parses a document. Throws InputError with the line where the text stops being XML.
 *
 * `take` is offered each grandchild of the root as it closes (the measures of a partwise score): what it takes, by
 * answering true, is not kept in the tree. A large score is a million elements, most of the time of reading it goes
 * into keeping them, and only a measure at a time is wanted.
 */
export function parseXml(text: string, take?: (element: XmlElement, place: Place) => boolean): XmlElement {
  const parser = new SaxesParser();
  const stack: Open[] = [];
  /** One text for each name of an element. */
  const names = new Map<string, string>();
  let root: Open | undefined;
  let elements = 0;

  const named = (name: string): string => {
    let known = names.get(name);
    // As the key of an object a text is kept once by the engine: comparing it is comparing addresses from then on.
    if (known === undefined) names.set(name, (known = Object.keys({ [name]: 0 })[0]!));
    return known;
  };
  const addText = (chunk: string): void => {
    const open = stack.at(-1);
    // What stands between elements is line ends and spaces; a copy of each would cost more than all that is read.
    if (open && (open.text !== '' || SOMETHING.test(chunk))) open.text += chunk;
  };

  let attributes: Record<string, string> | undefined;
  parser.on('attribute', ({ name, value }) => {
    attributes ??= {};
    attributes[named(name)] = value;
  });
  parser.on('opentag', (tag) => {
    const element: Open = {
      name: named(tag.name),
      attributes: attributes ?? NO_ATTRIBUTES,
      children: NO_CHILDREN,
      text: '',
      line: parser.line,
    };
    attributes = undefined;
    elements += 1;
    if (stack.length >= MAX_DEPTH || elements > MAX_ELEMENTS)
      throw new InputError(`The file is nested too deeply or too large to be a score (line ${parser.line}).`);
    if (stack.length === 0) root = element;
    // A grandchild of the root is added when it closes, if nobody takes it.
    else if (stack.length !== TAKEN_AT) addTo(stack.at(-1)!, element);
    stack.push(element);
  });
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.on('closetag', () => {
    const element = stack.pop()!;
    if (stack.length !== TAKEN_AT) return;
    const parent = stack[1]!;
    if (!take?.(element, { parent, root: root! })) addTo(parent, element);
  });
  parser.on('error', (error) => {
    throw new InputError(
      stack.length > 0 && /unclosed|unexpected end/i.test(error.message)
        ? `The file ends in the middle (line ${parser.line}, inside <${stack.at(-1)!.name}>): it may have been cut off when it was saved or sent.`
        : `The file is not well-formed XML at line ${parser.line}.`,
    );
  });

  for (let at = 0; at < text.length; at += TOLD_EVERY) {
    if (at > 0) tell('read', at / text.length);
    parser.write(text.slice(at, at + TOLD_EVERY));
  }
  parser.close();
  if (!root) throw new InputError('The file holds no XML at all.');
  return root;
}

function addTo(parent: Open, element: XmlElement): void {
  if (parent.children === NO_CHILDREN) parent.children = [element];
  else parent.children.push(element);
}

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
