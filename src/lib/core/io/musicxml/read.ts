/**
 * MusicXML, partwise or timewise, into a Score. Parts share one frame of measures; each keeps its own divisions.
 * Pitches of transposing instruments are brought to concert pitch. What cannot be used is named in `warnings`.
 */
import { InputError } from '../inputError';
import type { ReadResult } from '../readResult';
import { assembleScore } from '../assemble';
import type { ReadPart } from '../readMeasures';
import { readPart } from './readPart';
import { child, childrenOf, parseXml, textOf, type XmlElement } from './xml';

const MAX_MEASURES = 4000;
const MAX_PARTS = 200;

/** Reads a MusicXML document. Throws InputError when it is not one, or holds no notes. */
export function readMusicXml(text: string): ReadResult {
  const document = parseXml(text.replace(/^\uFEFF/, ''));
  const root = document.name === 'score-timewise' ? partwise(document) : document;
  if (root.name !== 'score-partwise')
    throw new InputError(`This is XML, but not a MusicXML score: it begins with <${root.name}>.`);

  const warnings: string[] = [];
  const title =
    textOf(child(root, 'work'), 'work-title') ??
    textOf(root, 'movement-title') ??
    creditTitle(root) ??
    'Untitled';
  const composer = childrenOf(child(root, 'identification'), 'creator')
    .find((c) => c.attributes.type === 'composer')
    ?.text.trim();
  return { score: assembleScore(title, composer ?? '', partsIn(root, warnings)), warnings };
}

function partsIn(root: XmlElement, warnings: string[]): ReadPart[] {
  const names = new Map(
    childrenOf(child(root, 'part-list'), 'score-part').map((p) => [
      p.attributes.id ?? '',
      textOf(p, 'part-name') ?? '',
    ]),
  );
  const elements = childrenOf(root, 'part');
  if (elements.length === 0) throw new InputError('The score holds no parts.');
  if (elements.length > MAX_PARTS)
    throw new InputError(`The score has ${elements.length} parts; up to ${MAX_PARTS} can be read.`);
  const most = Math.max(...elements.map((e) => childrenOf(e, 'measure').length));
  if (most === 0) throw new InputError('The score holds no measures.');
  if (most > MAX_MEASURES)
    throw new InputError(`The score has ${most} measures; up to ${MAX_MEASURES} can be read.`);
  const countsAbove = elements.some((part) =>
    childrenOf(part, 'measure').some((m) =>
      childrenOf(m, 'note').some((n) => childrenOf(n, 'lyric').some((l) => l.attributes.name === 'counts')),
    ),
  );
  const parts = elements.map((part, index) =>
    readPart(part, { index, name: names.get(part.attributes.id ?? '') ?? '', countsAbove, warnings }),
  );
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

/** A timewise document (parts inside measures) turned into a partwise one (measures inside parts). */
function partwise(root: XmlElement): XmlElement {
  const parts = new Map<string, XmlElement[]>();
  for (const measure of childrenOf(root, 'measure'))
    for (const part of childrenOf(measure, 'part')) {
      const id = part.attributes.id ?? '';
      const own = parts.get(id) ?? [];
      own.push({ ...measure, children: part.children });
      parts.set(id, own);
    }
  return {
    ...root,
    name: 'score-partwise',
    children: [
      ...root.children.filter((c) => c.name !== 'measure'),
      ...[...parts].map(([id, children]) => ({
        ...root,
        name: 'part',
        attributes: { id },
        text: '',
        children,
      })),
    ],
  };
}
