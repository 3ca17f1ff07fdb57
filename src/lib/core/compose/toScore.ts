/** The music of a sketch: measures as far as it is written, notes cut and tied as they must be, words, chords, sections, repeats. */
import { readChordRow } from '../decisions/kinds/chordSymbols';
import { measureId } from '../score/measureId';
import { measureLength } from '../score/metre';
import { notate } from '../score/notate';
import type { ChordSymbol, Lyric, Measure, Note, Score, Tuplet } from '../score/score';
import type { Ticks } from '../score/ticks';
import { parseKey } from '../theory/key';
import { lengthOf, onsetsOf, type Item, type Sketch } from './sketch';

const TRIPLET: Tuplet = { actual: 3, normal: 2 };

/** The measures of a sketch, at least one; the last is full. */
export function measuresOf({ key, time, pickup, items, sections, repeats, chords }: Sketch): Measure[] {
  const full = measureLength(time);
  const end = onsetsOf(items).at(-1)!;
  // Chords and names may stand in measures that have no notes yet.
  const last = Math.max(0, ...[...Object.keys(chords), ...Object.keys(sections)].map(Number));
  const written = pickup > 0 ? 1 + Math.ceil(Math.max(0, end - pickup) / full) : Math.ceil(end / full);
  return Array.from({ length: Math.max(1, written, last + 1) }, (_, index): Measure => {
    const isPickup = pickup > 0 && index === 0;
    const repeat = repeats.find((r) => r.from === index);
    return {
      id: measureId(index),
      index,
      number: String(pickup > 0 ? index : index + 1),
      start: pickup > 0 ? Math.max(0, pickup + (index - 1) * full) * (index > 0 ? 1 : 0) : index * full,
      length: isPickup ? pickup : full,
      time,
      key: parseKey(key)!,
      beginsAt: isPickup ? full - pickup : 0,
      ...(sections[index] ? { section: sections[index] } : {}),
      ...(repeat && index > 0 ? { repeatStart: true } : {}),
      ...(repeats.some((r) => r.to === index) ? { repeatEnd: true } : {}),
    };
  });
}

/** The score of a sketch: one staff with its words, and chord symbols. */
export function toScore(sketch: Sketch): Score {
  const measures = measuresOf(sketch);
  return {
    title: sketch.title,
    composer: sketch.composer,
    tempo: sketch.tempo,
    measures: measures.map((m, i) => (i === measures.length - 1 ? { ...m, barline: 'final' as const } : m)),
    parts: [{ id: 'P1', name: 'Melody', staves: 1, notes: notesOf(sketch.items, measures) }],
    chordSymbols: chordsOf(sketch, measures),
    pedals: [],
  };
}

/** Id of the note that an item begins with: what the page marks. */
export const itemId = (index: number): string => `n${index}`;

function notesOf(items: readonly Item[], measures: readonly Measure[]): Note[] {
  const onsets = onsetsOf(items);
  const notes = items.flatMap((item, i): Note[] => {
    if (!item.pitch) return [];
    const before = items[i - 1];
    const isTied = before?.tie === true && samePitch(before, item);
    const note: Note = {
      id: itemId(i),
      onset: onsets[i]!,
      duration: lengthOf(item),
      pitch: item.pitch,
      staff: 1,
      voice: 1,
      ...(item.triplet ? { tuplet: TRIPLET } : {}),
      ...(isTied ? {} : withWords(items, i)),
    };
    const pieces = notate(measures, [note]);
    const goesOn = item.tie && items[i + 1] !== undefined && samePitch(item, items[i + 1]!);
    return pieces.map((piece, k): Note => {
      const from = k > 0 || isTied;
      const on = k < pieces.length - 1 || goesOn;
      const { tie: _tie, ...rest } = piece;
      return from || on ? { ...rest, tie: from && on ? 'both' : from ? 'stop' : 'start' } : rest;
    });
  });
  return notes;
}

const samePitch = (a: Item, b: Item): boolean => JSON.stringify(a.pitch) === JSON.stringify(b.pitch);

/** Whether an item begins a note that is sung: not a rest, and not what a tie leads on to. */
export const isSung = (items: readonly Item[], i: number): boolean => {
  const [item, before] = [items[i], items[i - 1]];
  return item?.pitch != null && !(before?.tie === true && samePitch(before, item));
};

function withWords(items: readonly Item[], i: number): Pick<Note, 'lyrics'> {
  const lyrics = items[i]!.words.flatMap((text, verse): Lyric[] => {
    if (text === '') return [];
    const before = items.slice(0, i).findLast((item) => (item.words[verse] ?? '') !== '');
    const isInside = before?.words[verse]?.endsWith('-') === true;
    const goesOn = text.endsWith('-');
    const syllabic = goesOn ? (isInside ? 'middle' : 'begin') : isInside ? 'end' : 'single';
    return [{ line: 'words', verse: verse + 1, text: text.replace(/-$/, ''), syllabic }];
  });
  return lyrics.length > 0 ? { lyrics } : {};
}

function chordsOf({ chords }: Sketch, measures: readonly Measure[]): ChordSymbol[] {
  return measures.flatMap((measure): ChordSymbol[] => {
    const row = readChordRow(chords[measure.index] ?? '') ?? [];
    return row.flatMap((chord, i): ChordSymbol[] => {
      const onset: Ticks = measure.start + Math.round((i * measure.length) / row.length);
      return chord === undefined ? [] : [{ onset, chord }];
    });
  });
}
