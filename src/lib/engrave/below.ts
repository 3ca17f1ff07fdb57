/** What can stand below the notes of a picture beside counts and words: their names, and what is sung over the chords of a chart. */
import { beatLength, endOf } from '$core/score/metre';
import { pitchClassName, toMidi } from '$core/theory/pitch';
import { isStruck, measureAt } from '$core/score/query';
import type { Lyric, Mark, Note, Score } from '$core/score/score';
import { spreadWords } from '$core/score/spreadWords';
import type { Ticks } from '$core/score/ticks';
import type { Key } from '$core/theory/key';
import { chordTone, noteDegree } from '$core/theory/noteDegree';

interface Sung {
  /** Each word at its beat. */
  readonly words: readonly { readonly tick: Ticks; readonly text: string }[];
  /** Notes that keep the room for what is sung from their onset on, by id. */
  readonly carriers: ReadonlyMap<string, Lyric>;
  /** Marks that are drawn in this way. */
  readonly marks: ReadonlySet<Mark>;
}

export const NOTHING_SUNG: Sung = { words: [], carriers: new Map(), marks: new Set() };

/** Words that a chart has at its chords, spread over the beats until the next ones; where a note is struck to keep their room. */
export function sungIn({ parts, measures }: Pick<Score, 'parts' | 'measures'>): Sung {
  const { notes, marks = [] } = parts[0]!;
  const all = marks.filter((m) => m.kind === 'lyrics');
  const carried = all.flatMap((mark) => {
    const carrier = notes.find((n) => n.onset === mark.onset && n.staff === 1 && isStruck(n));
    return carrier ? [{ mark, carrier }] : [];
  });
  return {
    words: carried.flatMap(({ mark }) => {
      const measure = measureAt(measures, mark.onset);
      const next = all.find((m) => m.onset > mark.onset)?.onset ?? Infinity;
      return spreadWords(mark.text, mark.onset, Math.min(next, endOf(measure)), beatLength(measure.time));
    }),
    carriers: new Map(
      carried.map(({ mark, carrier }) => [
        carrier.id,
        { line: 'sung', verse: 1, text: mark.text, syllabic: 'single' } as const,
      ]),
    ),
    marks: new Set(carried.map(({ mark }) => mark)),
  };
}

/**
 * The melody's notes, the highest of each stroke of the upper staff, as degrees of the key or as tones of the chord that is named there;
 * on the line below a verse. Nothing where no chord is named.
 */
export function degreesByNote(
  { parts, chordSymbols }: Pick<Score, 'parts' | 'chordSymbols'>,
  as: 'degrees' | 'tones',
  key: Key,
  below: number,
): Map<string, Lyric> {
  const tops = new Map<Ticks, Note>();
  for (const note of parts[0]!.notes) {
    if (note.staff !== 1 || !isStruck(note)) continue;
    const before = tops.get(note.onset);
    if (!before || toMidi(note.pitch) > toMidi(before.pitch)) tops.set(note.onset, note);
  }
  const symbols = [...chordSymbols].sort((a, b) => a.onset - b.onset);
  return new Map(
    [...tops.values()].flatMap((note): [string, Lyric][] => {
      const chord = symbols.findLast((s) => s.onset <= note.onset)?.chord;
      const text = as === 'degrees' ? noteDegree(note.pitch, key) : chord ? chordTone(note.pitch, chord) : '';
      return text === '' ? [] : [[note.id, { line: 'names', verse: below, text, syllabic: 'single' }]];
    }),
  );
}

/** The names of what is struck together, the lowest first, by the note that carries them; on the line below a verse. */
export function namesByNote(notes: readonly Note[], below: number): Map<string, Lyric> {
  const strokes = new Map<string, Note[]>();
  for (const note of notes) {
    if (!isStruck(note)) continue;
    const place = `${note.staff} ${note.onset}`;
    strokes.set(place, [...(strokes.get(place) ?? []), note]);
  }
  return new Map(
    [...strokes.values()].map((struck) => {
      const rising = [...struck].sort((a, b) => toMidi(a.pitch) - toMidi(b.pitch));
      const text = rising.map((n) => pitchClassName(n.pitch)).join('');
      return [struck[0]!.id, { line: 'names', verse: below, text, syllabic: 'single' }];
    }),
  );
}
