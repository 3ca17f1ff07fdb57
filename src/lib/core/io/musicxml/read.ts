/**
 * MusicXML, partwise or timewise, into a Score. Parts share one frame of measures; each keeps its own divisions.
 * Pitches of transposing instruments are brought to concert pitch. What cannot be used is named in `warnings`.
 */
import { plainLine } from '../../plainText';
import { InputError } from '../inputError';
import { atMost, MOST_MEASURES, MOST_NOTES, MOST_PART_MEASURES, MOST_PARTS } from '../limits';
import type { ReadResult } from '../readResult';
import { assembleScore } from '../private/assemble';
import type { ReadPart } from '../private/readMeasures';
import { partReader, type PartReader } from '../private/musicxml/readPart';
import { child, childrenOf, parseXml, textOf, type Place, type XmlElement } from '../private/musicxml/xml';

/** Reads a MusicXML document. Throws InputError when it is not one, or holds no notes. */
export function readMusicXml(text: string): ReadResult {
  const { take, parts } = partsOf(COUNTS_ABOVE.test(text));
  const root = parseXml(text.replace(/^\uFEFF/, ''), take);
  if (root.name !== 'score-partwise' && root.name !== 'score-timewise')
    throw new InputError(`This is XML, but not a MusicXML score: it begins with <${root.name}>.`);

  const warnings: string[] = [];
  const title =
    textOf(child(root, 'work'), 'work-title') ?? textOf(root, 'movement-title') ?? creditTitle(root) ?? '';
  const composer = childrenOf(child(root, 'identification'), 'creator')
    .find((c) => c.attributes.type === 'composer')
    ?.text.trim();
  const rights = textOf(child(root, 'identification'), 'rights')?.trim();
  return {
    score: {
      ...assembleScore(title, composer ?? '', ended(root, parts(), warnings)),
      ...(rights ? { rights: plainLine(rights) } : {}),
    },
    warnings,
  };
}

/** Counts as we write them, in the first lyric line. Whether there are any must be known before the first note is read. */
const COUNTS_ABOVE = /<lyric\b[^>]*\bname\s*=\s*["']counts["']/;

/** Takes the measures of all parts as they close, partwise (measures inside parts) or timewise (parts inside measures). */
function partsOf(countsAbove: boolean) {
  const readers = new Map<XmlElement | string, PartReader>();
  let measures = 0;
  let notes = 0;
  const readerOf = (key: XmlElement | string, id: string): PartReader => {
    const known = readers.get(key);
    if (known) return known;
    atMost(readers.size + 1, MOST_PARTS, 'parts');
    const made = partReader(id, readers.size, countsAbove);
    readers.set(key, made);
    return made;
  };
  const take = (element: XmlElement, { parent, root }: Place): boolean => {
    const isPartwise = root.name === 'score-partwise' && parent.name === 'part' && element.name === 'measure';
    const isTimewise = root.name === 'score-timewise' && parent.name === 'measure' && element.name === 'part';
    if (!isPartwise && !isTimewise) return false;
    const id = (isPartwise ? parent : element).attributes.id ?? '';
    const reader = readerOf(isPartwise ? parent : id, id);
    measures += 1;
    notes += element.children.filter((c) => c.name === 'note').length;
    atMost(reader.count() + 1, MOST_MEASURES, 'measures');
    atMost(measures, MOST_PART_MEASURES, 'measures in all its parts');
    atMost(notes, MOST_NOTES, 'notes');
    reader.add(isPartwise ? element : { ...parent, children: element.children });
    return true;
  };
  return { take, parts: () => [...readers].map(([key, reader]) => ({ id: idOf(key), reader })) };
}

const idOf = (key: XmlElement | string): string =>
  typeof key === 'string' ? key : (key.attributes.id ?? '');

function ended(
  root: XmlElement,
  readers: readonly { readonly id: string; readonly reader: PartReader }[],
  warnings: string[],
): ReadPart[] {
  if (readers.length === 0)
    throw new InputError(child(root, 'part') ? 'The score holds no measures.' : 'The score holds no parts.');
  const names = new Map(
    childrenOf(child(root, 'part-list'), 'score-part').map((p) => [
      p.attributes.id ?? '',
      textOf(p, 'part-name') ?? '',
    ]),
  );
  const parts = readers.map(({ id, reader }) => reader.end(names.get(id) ?? '', warnings));
  if (parts.every((p) => p.measures.every((m) => m.notes.length === 0)))
    throw new InputError(
      warnings.length > 0
        ? `The score holds no notes that can be used. ${warnings[0]!}`
        : 'The score holds no pitched notes.',
    );
  return parts;
}

function creditTitle(root: XmlElement): string | undefined {
  const credit = childrenOf(root, 'credit').find((c) => textOf(c, 'credit-type') === 'title');
  return textOf(credit, 'credit-words');
}
