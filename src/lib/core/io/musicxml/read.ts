/**
 * MusicXML, partwise or timewise, into a Score. Parts share one frame of measures; each keeps its own divisions.
 * Pitches of transposing instruments are brought to concert pitch. What cannot be used is named in `warnings`.
 */
import { shownAccidentals } from '../../score/accidentals';
import { staffPosition } from '../../score/pitch';
import type { Measure, Note, Part, Score } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { InputError } from '../inputError';
import type { ReadResult } from '../readResult';
import { frameOf } from './frame';
import { readPart, type ReadPart } from './readPart';
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
  const readParts = partsIn(root, warnings);
  const measures = frameOf(readParts);
  const parts = readParts.map((part) => toPart(part, measures)).filter((part) => part.notes.length > 0);
  const collected = <K extends 'symbols' | 'pedals' | 'tempos'>(
    part: ReadPart,
    what: K,
  ): ReadPart['measures'][number][K][number][] =>
    part.measures.flatMap((m, i) => m[what].map((item) => placed(item, measures[i]!)));
  const withSymbols = readParts.find((p) => p.measures.some((m) => m.symbols.length > 0));
  const tempos = readParts
    .flatMap((p) => collected(p, 'tempos'))
    .sort((a, b) => a.onset - b.onset)
    .filter((t, i, all) => i === 0 || t.onset !== all[i - 1]!.onset);
  const changes = tempos.filter((t, i) => i > 0 && t.tempo !== tempos[i - 1]!.tempo);

  return {
    score: {
      title:
        textOf(child(root, 'work'), 'work-title') ??
        textOf(root, 'movement-title') ??
        creditTitle(root) ??
        'Untitled',
      composer:
        childrenOf(child(root, 'identification'), 'creator')
          .find((c) => c.attributes.type === 'composer')
          ?.text.trim() ?? '',
      tempo: tempos[0]?.tempo ?? 0,
      ...(changes.length > 0 ? { tempoChanges: changes } : {}),
      measures,
      parts,
      chordSymbols: withSymbols ? collected(withSymbols, 'symbols') : [],
      pedals: readParts.flatMap((p) => collected(p, 'pedals')).sort((a, b) => a.onset - b.onset),
    },
    warnings,
  };
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

/** An item of a measure, its onset counted from the beginning of the score. */
const placed = <T extends { readonly onset: Ticks }>(item: T, measure: Measure): T => ({
  ...item,
  onset: item.onset + measure.start,
});

function toPart({ id, name, staves, measures: read }: ReadPart, measures: readonly Measure[]): Part {
  const notes = read.flatMap((m, i) =>
    withoutNeededReminders(
      measures[i]!,
      m.notes.map((n) => placed(n, measures[i]!)),
    ),
  );
  const clefs = read.flatMap((m, i) => m.clefs.map((c) => placed(c, measures[i]!)));
  const marks = read.flatMap((m, i) => m.marks.map((c) => placed(c, measures[i]!)));
  return {
    id,
    name,
    staves,
    notes: notes.sort(inReadingOrder),
    ...(clefs.length > 0 ? { clefs } : {}),
    ...(marks.length > 0 ? { marks: marks.sort((a, b) => a.onset - b.onset) } : {}),
  };
}

/** An accidental that the measure needs is no reminder: it is printed in any case. */
function withoutNeededReminders(measure: Measure, notes: readonly Note[]): Note[] {
  if (!notes.some((n) => n.reminder)) return [...notes];
  const needed = shownAccidentals(measure, notes);
  return notes.map((note) => {
    if (note.reminder !== 'plain' || !needed.has(note.id)) return note;
    const { reminder: _needed, ...rest } = note;
    return rest;
  });
}

/** In order of time; grace notes stand before their main note, or after it. */
export const inReadingOrder = (a: Note, b: Note): number =>
  a.onset - b.onset ||
  a.staff - b.staff ||
  a.voice - b.voice ||
  placeOfGrace(a) - placeOfGrace(b) ||
  staffPosition(a.pitch) - staffPosition(b.pitch);

const placeOfGrace = ({ grace }: Note): number =>
  !grace ? 0 : grace.after ? 1 + grace.order : grace.order - 1000;

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
