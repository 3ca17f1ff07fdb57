/**
 * What the engraver, which does not know our badges and lets a word begin before its note, would have run into each other: words are
 * moved off barlines and off each other, lines of the pedal below the left hand's fingers.
 */
import { labelOf, type Geometry } from './geometry';
import { classOf, elements, walk, type SvgElement } from './svg';
import { wordWidth } from './wordWidth';

/** Between a word and a barline, and between two words, in the engraver's units. */
const FROM_BARLINE = 45;
const FROM_WORD = 70;

interface Word {
  readonly at: SvgElement;
  readonly width: number;
  readonly left: number;
  readonly right: number;
  x: number;
}

const textOf = ({ children }: SvgElement): string =>
  children.map((child) => (typeof child === 'string' ? child : textOf(child))).join('');

/** The size in which a text is set: that of its innermost stretch. */
function sizeOf(text: SvgElement): number {
  let size = 0;
  for (const at of walk(text)) size = parseFloat(at.attributes['font-size'] ?? '') || size;
  return size;
}

/** Moves words where they cross a barline, on each line of each system. */
export function clearWords(root: SvgElement, { measures }: Geometry): void {
  const lines = new Map<string, Word[]>();
  let place = -1;
  const visit = (at: SvgElement, isWords: boolean): void => {
    const kind = at.name === 'g' ? classOf(at) : '';
    if (kind === 'measure') place += 1;
    if (at.name === 'text' && isWords && at.attributes.y) {
      const { system, left, right } = measures[place]!;
      // Named, so that whoever looks for what runs into what finds them.
      at.attributes.class = 'word';
      const line = `${system} ${at.attributes.y}`;
      const width = wordWidth(textOf(at)) * sizeOf(at);
      lines.set(line, [...(lines.get(line) ?? []), { at, width, left, right, x: Number(at.attributes.x) }]);
    }
    const label = kind === 'verse' ? labelOf(at) : undefined;
    const isLine = kind === 'verse' ? label !== 'counts' && label !== 'sung' : isWords;
    for (const child of elements(at)) visit(child, isLine);
  };
  visit(root, false);
  for (const words of lines.values()) clearLine(words);
}

function clearLine(words: readonly Word[]): void {
  const ordered = [...words].sort((a, b) => a.x - b.x);
  let end = -Infinity;
  for (const word of ordered) {
    word.x = Math.max(word.x, end + FROM_WORD, word.left + FROM_BARLINE);
    end = word.x + word.width;
  }
  // What now reaches over its right barline goes back as far as the word before it leaves room.
  let limit = Infinity;
  for (const [i, word] of [...ordered.entries()].reverse()) {
    const wanted = Math.min(limit - FROM_WORD, word.right - FROM_BARLINE) - word.width;
    const before = ordered[i - 1];
    const least = Math.max(
      word.left + FROM_BARLINE,
      before && before.right === word.right ? before.x + before.width + FROM_WORD : -Infinity,
    );
    if (wanted < word.x) word.x = Math.max(wanted, Math.min(word.x, least));
    limit = word.x;
  }
  for (const { at, x } of ordered) at.attributes.x = String(Math.round(x));
}

/** Half of a badge, with a little air. */
const HALF_BADGE = 178;
const AIR = 50;

interface Place {
  readonly note: string;
  readonly x: number;
  readonly y: number;
}

/** Brackets of chord names hang below their line, at every size of the notes. */
const BELOW_CHORD = 110;
/** Our face for chord names is wider than the words' by so much. */
const CHORD_WIDER = 1.6;

/** Elements of a name inside the engraver's groups of a kind, by their system. */
function bySystemIn(root: SvgElement, kind: string, name: string): Map<number, SvgElement[]> {
  const found = new Map<number, SvgElement[]>();
  let system = -1;
  const visit = (at: SvgElement, isInside: boolean): void => {
    const own = at.name === 'g' ? classOf(at) : '';
    if (own === 'system') system += 1;
    if (isInside && at.name === name && at.attributes.y)
      found.set(system, [...(found.get(system) ?? []), at]);
    for (const child of elements(at)) visit(child, isInside || own === kind);
  };
  visit(root, false);
  return found;
}

/** Moves elements up (below 0) or down, all alike. */
function shift(list: readonly SvgElement[], by: number): void {
  for (const { attributes } of list) attributes.y = String(Math.round(Number(attributes.y) + by));
}

/** Lifts the chord names of a system, all of them alike, above the fingers that reach into one of them. */
export function clearChords(root: SvgElement, badges: readonly Place[]): void {
  for (const chords of bySystemIn(root, 'harm', 'text').values()) {
    const by = Math.max(
      ...chords.flatMap((at) => {
        const [x, y] = [Number(at.attributes.x), Number(at.attributes.y)];
        const size = sizeOf(at);
        const right = x + wordWidth(textOf(at)) * size * CHORD_WIDER;
        return badges
          .filter((b) => b.x + HALF_BADGE > x && b.x - HALF_BADGE < right)
          .filter((b) => b.y > y - size && b.y - HALF_BADGE < y + BELOW_CHORD)
          .map((b) => y + BELOW_CHORD - (b.y - HALF_BADGE));
      }),
    );
    if (by > 0) shift(chords, -by);
  }
}

/** Lowers the pedal's line of a system below the fingers that reach into it. */
export function clearPedals(
  root: SvgElement,
  { measures }: Geometry,
  badges: readonly Place[],
  isLeft: (note: string) => boolean,
): void {
  for (const [index, rects] of bySystemIn(root, 'pedal', 'rect')) {
    for (const { attributes } of rects) attributes.class = 'pedal';
    const own = measures.filter((m) => m.system === index);
    const top = Math.min(...rects.map((r) => Number(r.attributes.y)));
    const bottom = Math.max(...own.map((m) => m.bottom));
    // Fingers of this system: below its upper staff and above the next system.
    const next = Math.min(...measures.filter((m) => m.system === index + 1).map((m) => m.top));
    const lowest = Math.max(
      ...badges
        .filter((b) => isLeft(b.note) && b.y > bottom - 1200 && b.y < next)
        .map((b) => b.y + HALF_BADGE),
    );
    const by = lowest + AIR - top;
    if (by > 0) shift(rects, by);
  }
}
