/**
 * Scores from short text, for tests and for the demo pieces. Measures apart by `|`, notes as PITCH:QUARTERS, `r` for a
 * rest, chords in square brackets: "G4:1.5 A4:0.5 [B4 D5]:2 | r:4".
 */
import { measureId } from '../score/measureId';
import { endOf, measureLength } from '../score/metre';
import { notate } from '../score/notate';
import type { Pitch, Step } from '../theory/pitch';
import type { ChordSymbol, Measure, Note, Score, TimeSignature } from '../score/score';
import { TICKS_PER_QUARTER } from '../score/ticks';
import { parseChord } from '../theory/chordName';
import { parseKey } from '../theory/key';

export interface Line {
  title?: string;
  /** A key code: "G", "F#m". */
  key: string;
  time: TimeSignature;
  tempo?: number;
  /** Quarters before the first barline. */
  pickup?: number;
  right: string;
  /** Lower staff; without it the part has one staff. */
  left?: string;
  /** Chord symbols, one measure each, evenly spread over it; empty for a piece without symbols. */
  chords?: string;
  /** Section names by measure number. */
  sections?: Record<number, string>;
}

function pitch(text: string): Pitch {
  const match = /^([A-G])(#|b)?(\d)$/.exec(text);
  if (!match) throw new Error(`Not a pitch: ${text}`);
  const alter = match[2] === '#' ? 1 : match[2] === 'b' ? -1 : 0;
  return { step: match[1] as Step, alter, octave: Number(match[3]) };
}

function chord(text: string): ChordSymbol['chord'] {
  const parsed = parseChord(text);
  if (!parsed) throw new Error(`Not a chord: ${text}`);
  return parsed;
}

const inReadingOrder = (notes: readonly Note[]): Note[] =>
  [...notes].sort((a, b) => a.onset - b.onset || a.staff - b.staff);

const measureTexts = (line: string): string[] => line.split('|').map((m) => m.trim());

function notesOf(line: string, measures: readonly Measure[], staff: number): Note[] {
  return measureTexts(line).flatMap((text, i) => {
    const measure = measures[i];
    if (!measure) throw new Error(`Staff ${staff} has more than ${measures.length} measures.`);
    let onset = measure.start;
    let count = 0;
    const notes = text.split(/\s+(?![^[]*\])/).flatMap((token): Note[] => {
      const [what, quarters] = token.split(':');
      const duration = Number(quarters) * TICKS_PER_QUARTER;
      const at = onset;
      onset += duration;
      const pitches = what === 'r' ? [] : what!.replace(/[[\]]/g, '').split(' ');
      return pitches.map((p) => ({
        id: `m${i}s${staff}n${count++}`,
        onset: at,
        duration,
        pitch: pitch(p),
        staff,
        voice: staff === 1 ? 1 : 5,
      }));
    });
    if (onset !== endOf(measure))
      throw new Error(
        `Staff ${staff}, measure ${measure.number}: ${(onset - measure.start) / TICKS_PER_QUARTER} quarters.`,
      );
    return notes;
  });
}

/** Builds the score that a few lines of text describe. Throws where a measure is not full. */
export function scoreFrom(piece: Line): Score {
  const key = parseKey(piece.key)!;
  const pickup = piece.pickup ?? 0;
  const full = measureLength(piece.time);
  const count = measureTexts(piece.right).length;
  let start = 0;
  const measures = Array.from({ length: count }, (_, index): Measure => {
    const isPickup = index === 0 && pickup > 0;
    const length = isPickup ? pickup * TICKS_PER_QUARTER : full;
    const number = String(pickup > 0 ? index : index + 1);
    const section = piece.sections?.[Number(number)];
    start += length;
    return {
      id: measureId(index),
      index,
      number,
      start: start - length,
      length,
      time: piece.time,
      key,
      beginsAt: full - length,
      ...(section ? { section } : {}),
      ...(index === count - 1 ? { barline: 'final' as const } : {}),
    };
  });
  const symbols = !piece.chords ? [] : measureTexts(piece.chords);
  return {
    title: piece.title ?? 'Test',
    composer: '',
    tempo: piece.tempo ?? 100,
    measures,
    parts: [
      {
        id: 'P1',
        name: 'Piano',
        staves: piece.left ? 2 : 1,
        notes: inReadingOrder(
          notate(measures, [
            ...notesOf(piece.right, measures, 1),
            ...(piece.left ? notesOf(piece.left, measures, 2) : []),
          ]),
        ),
      },
    ],
    chordSymbols: symbols.flatMap((text, i) => {
      const names = text.split(/\s+/).filter(Boolean);
      return names.map((name, j) => ({
        onset: measures[i]!.start + (j * measures[i]!.length) / names.length,
        chord: chord(name),
      }));
    }),
    pedals: [],
  };
}

/** The score with a singer beside its piano: a line of measures as `right` has them, "la" on each note. */
export function withVoice(score: Score, line: string): Score {
  const notes = notate(score.measures, notesOf(line, score.measures, 1)).map((n): Note => ({
    ...n,
    id: `v${n.id}`,
    lyrics: [{ line: 'words', verse: 1, text: 'la', syllabic: 'single' }],
  }));
  return {
    ...score,
    parts: [
      { id: 'V', name: 'Voice', staves: 1, role: 'melody', notes },
      ...score.parts.map((p) => ({ ...p, role: 'keyboard' as const })),
    ],
  };
}
