/**
 * What the highest level makes of a source that is only a melody with chords: the chord under long notes moves instead of
 * standing, and the last phrase closes in octaves (music-rules, "Levels 4, 5, 6 of a lead sheet"). Every note of the filling
 * before it stays, in time or struck in turn.
 */
import type { Phrase } from '../../analysis/form';
import { beatLength, pulseLength } from '../../score/metre';
import { pitchName, toMidi } from '../../theory/pitch';
import { measureAt, type SoundingNote } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import { spellMidi, toFifths } from '../../theory/fifths';
import type { ArrangeReason } from '../reason';

interface ConcertSettings {
  readonly measures: readonly Measure[];
  readonly phrases: readonly Phrase[];
  /** Semitones the right hand holds. */
  readonly reach: number;
  /** The highest key of the keyboard. */
  readonly highest: number;
  /** The lowest key that the left hand leaves free from one tick to another. */
  readonly floor: (from: Ticks, to: Ticks) => number;
}

/** Beats from which a note is long enough for the chord under it to move. */
const LONG = 2;
const OCTAVE = 12;
/** Lowest key of an octave in the right hand, A3: below it the left hand is at home. */
const LOWEST = 57;
/** Voice of what moves under a held melody. */
const INNER_VOICE = 2;

/** The filling as it moves, and the octaves of the close. `filling` as long as the melody notes above it. */
export function concertVersion(
  melody: readonly SoundingNote[],
  filling: readonly Note[],
  settings: ConcertSettings,
): { notes: Note[]; reasons: ArrangeReason[] } {
  const reasons: ArrangeReason[] = [];
  const under = new Map<Ticks, Note[]>();
  for (const note of filling) under.set(note.onset, [...(under.get(note.onset) ?? []), note]);
  const closes = settings.measures[settings.phrases.at(-1)?.from ?? 0]!.start;
  const isClosing = (note: SoundingNote): boolean => note.onset >= closes;
  const semitones = octaveOfClose(melody.filter(isClosing), settings);
  const notes = melody.flatMap((note): Note[] => {
    const { index } = measureAt(settings.measures, note.onset);
    const own = under.get(note.onset) ?? [];
    under.delete(note.onset);
    if (isClosing(note) && isDoubled(note) && semitones !== 0) {
      const octave = doubling(note, semitones, settings.measures[index]!);
      reasons.push({
        measure: index,
        notes: [octave.id],
        reason: `${pitchName(octave.pitch)} doubles the melody: the last phrase ends in octaves`,
      });
      // Under the lower octave only what is not that key; under the upper one the hand has no room.
      return [octave, ...(semitones > 0 ? [] : own.filter((n) => toMidi(n.pitch) !== toMidi(octave.pitch)))];
    }
    // The last chord stands.
    const moving = note === melody.at(-1) ? [] : inTurn(note, own, settings.measures[index]!);
    if (moving.length > 0)
      reasons.push({
        measure: index,
        notes: moving.map((n) => n.id),
        reason: `${own.map((n) => pitchName(n.pitch)).join(' ')} broken: under a long note the chord moves`,
      });
    return moving.length > 0 ? moving : own;
  });
  return { notes: [...notes, ...[...under.values()].flat()], reasons };
}

/**
 * Semitones from the melody to its octave in the close: below it where the left hand leaves room under all of it, above it where
 * the keyboard has it; 0 where the hand is too small for either.
 */
function octaveOfClose(melody: readonly SoundingNote[], { reach, floor, highest }: ConcertSettings): number {
  if (reach < OCTAVE) return 0;
  const doubled = melody.filter(isDoubled);
  const isFree = ({ midi, onset, duration }: SoundingNote): boolean =>
    midi - OCTAVE >= LOWEST && midi - OCTAVE > floor(onset, onset + duration);
  if (doubled.every(isFree)) return -OCTAVE;
  return doubled.every((n) => n.midi + OCTAVE <= highest) ? OCTAVE : 0;
}

/** Quick notes go alone. */
const isDoubled = (note: SoundingNote): boolean => note.duration >= TICKS_PER_QUARTER;

const doubling = (note: SoundingNote, semitones: number, measure: Measure): Note => ({
  id: `O${measure.id}-${note.onset - measure.start}`,
  onset: note.onset,
  duration: note.duration,
  pitch: spellMidi(note.midi + semitones, toFifths(note.pitch)),
  staff: 1,
  voice: 1,
});

/** The keys under a long note one after another, from the lowest up and back, a pulse each; nothing where one key is alone. */
function inTurn(above: SoundingNote, own: readonly Note[], measure: Measure): Note[] {
  if (own.length < 2 || above.duration < LONG * beatLength(measure.time)) return [];
  const rising = [...own].sort((a, b) => a.pitch.octave - b.pitch.octave || stepOf(a) - stepOf(b));
  const order = [...rising, ...rising.slice(1, -1).reverse()];
  const pulse = pulseLength(measure.time);
  const end = Math.min(above.onset + above.duration, measure.start + measure.length);
  return Array.from({ length: Math.floor((end - above.onset) / pulse) }, (_, i): Note => {
    const key = order[i % order.length]!;
    return {
      ...key,
      id: `${key.id}.${i}`,
      onset: above.onset + i * pulse,
      duration: pulse,
      voice: INNER_VOICE,
    };
  });
}

const stepOf = (note: Note): number => 'CDEFGAB'.indexOf(note.pitch.step);
