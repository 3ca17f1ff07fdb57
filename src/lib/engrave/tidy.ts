/** The engraver's picture with nothing in it that nobody asks for: a page lays out and paints half as many elements. */
import { classOf, element, elements, find, type SvgElement } from './svg';

/** Draws each sign where it stands, instead of by its name: a page builds a tree of its own for every use of a name. */
export function drawSigns(root: SvgElement): void {
  const defs = find(root, (at) => at.name === 'defs');
  const signs = new Map(
    elements(defs ?? element('defs', {})).flatMap((sign) => {
      const path = find(sign, (at) => at.name === 'path');
      return path && sign.attributes.id ? [[sign.attributes.id, path.attributes] as const] : [];
    }),
  );
  const visit = (at: SvgElement): void => {
    at.children = at.children.flatMap((child): (SvgElement | string)[] => {
      if (typeof child === 'string') return [child];
      if (child === defs) return [];
      visit(child);
      const { 'xlink:href': name, transform = '', ...look } = child.attributes;
      const sign = child.name === 'use' && name ? signs.get(name.slice(1)) : undefined;
      if (!sign) return [child];
      return [
        element('path', { ...look, ...sign, transform: `${transform} ${sign.transform ?? ''}`.trim() }),
      ];
    });
  };
  visit(root);
}

/** Groups that something outside the picture asks for: to choose a note, to mark it, to follow what is where. */
const KEPT_GROUPS = new Set(['note', 'rest', 'harm', 'measure', 'staff', 'meterSig']);
/** What the engraver notes down for itself. */
const ENGRAVERS_OWN = new Set(['data-id', 'data-class', 'data-related', 'data-startid', 'data-n']);
/** Attributes of a group that say something about how its children look. */
const isLook = (name: string): boolean => !/^(class|id|data-.*)$/.test(name);

/**
 * Takes the engraver's structure out where nobody asks for it: a page lays out and paints half as many elements. Groups without a
 * look of their own give way to their children, and lines of one look that follow each other become one path.
 */
export function simplify(at: SvgElement, nameOfNote: (name: string) => string): void {
  at.children = joined(
    at.children.flatMap((child) => {
      if (typeof child === 'string') return [child];
      if (child.name === 'desc') return [];
      simplify(child, nameOfNote);
      const isBare =
        child.name === 'g' && !KEPT_GROUPS.has(classOf(child)) && !Object.keys(child.attributes).some(isLook);
      if (isBare) {
        // A head is what one points at.
        if (classOf(child) === 'notehead')
          for (const head of elements(child)) head.attributes.class = 'notehead';
        return child.children;
      }
      const { 'data-id': name } = child.attributes;
      for (const key of Object.keys(child.attributes))
        if (ENGRAVERS_OWN.has(key)) delete child.attributes[key];
      if (name !== undefined && child.attributes.class?.startsWith('note'))
        child.attributes['data-id'] = nameOfNote(name);
      return child.name === 'g' && child.children.length === 0 ? [] : [child];
    }),
  );
}

/** Straight lines of one look, one after another, as one path. */
function joined(children: SvgElement['children']): SvgElement['children'] {
  const list: SvgElement['children'] = [];
  for (const child of children) {
    const before = list.at(-1);
    const look = lineLook(child);
    if (look !== undefined && typeof before === 'object' && lineLook(before) === look)
      before.attributes.d += ` ${(child as SvgElement).attributes.d}`;
    else list.push(child);
  }
  return list;
}

/** The look of straight lines; undefined for anything else. */
function lineLook(at: SvgElement | string): string | undefined {
  if (typeof at === 'string' || at.name !== 'path' || at.children.length > 0) return undefined;
  const { d, ...look } = at.attributes;
  return d !== undefined && /^(M-?\d+ -?\d+ L-?\d+ -?\d+ ?)+$/.test(d) ? JSON.stringify(look) : undefined;
}
