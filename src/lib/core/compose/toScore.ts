/** The music of a sketch: measures as far as it is written, notes cut and tied as they must be, words, chords, sections, repeats. */
import { measureId } from '../score/measureId';
import { measureLength } from '../score/metre';
import { notate } from '../score/notate';
import type { ChordSymbol, Lyric, Measure, Note, Score, Tuplet } from '../score/score';
import { leadsOn, lyricOf } from '../score/syllables';
import { symbolsOfRow } from '../score/chordRow';
import { parseKey } from '../theory/key';
import { lengthOf, measureOf, onsetsOf, startOf, type Item, type Sketch } from './sketch';

const TRIPLET: Tuplet = { actual: 3, normal: 2 };

/** The measures of a sketch, at least one; the last is full. */
function measuresOf({ key, time, pickup, items, sections, repeats, chords }: Sketch): Measure[] {
  const full = measureLength(time);
  const end = onsetsOf(items).at(-1)!;
  // Chords and names may stand in measures that have no notes yet.
  const last = Math.max(0, ...[...Object.keys(chords), ...Object.keys(sections)].map(Number));
  const written = end > 0 ? measureOf({ time, pickup }, end - 1) + 1 : 0;
  return Array.from({ length: Math.max(1, written, last + 1) }, (_, index): Measure => {
    const isPickup = pickup > 0 && index === 0;
    return {
      id: measureId(index),
      index,
      number: String(pickup > 0 ? index : index + 1),
      start: startOf({ time, pickup }, index),
      length: isPickup ? pickup : full,
      time,
      key: parseKey(key)!,
      beginsAt: isPickup ? full - pickup : 0,
      ...(sections[index] ? { section: sections[index] } : {}),
      ...(index > 0 && repeats.some((r) => r.from === index) ? { repeatStart: true } : {}),
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
  return items.flatMap((item, i): Note[] => {
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
    return [lyricOf(text, verse + 1, leadsOn(before?.words[verse] ?? ''))];
  });
  return lyrics.length > 0 ? { lyrics } : {};
}

const chordsOf = ({ chords }: Sketch, measures: readonly Measure[]): ChordSymbol[] =>
  measures.flatMap((measure) => symbolsOfRow(chords[measure.index] ?? '', measure));
