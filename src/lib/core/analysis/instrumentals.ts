/**
 * Instrumentals of a song: measures in which its singer rests and the players go on, before the first verse, between verses and after
 * the last. They are sections of their own, have their own chords, and are played where the verses only carry the singer.
 */
import { endOf } from '../score/metre';
import { byMeasure, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Score } from '../score/score';
import { voicePart } from './melody';

/** Indices of the first and the last measure. */
export interface Instrumental {
  readonly from: number;
  readonly to: number;
}

/** Measures by which an instrumental is more than a breath; before the first note and after the last one will do. */
const FEWEST = 2;

/** The instrumentals of a score, in order. None where nobody sings beside the players. */
export function instrumentals(score: Score): readonly Instrumental[] {
  const voice = voicePart(score);
  const others = score.parts.filter((p) => p !== voice);
  if (!voice || voice.notes.length === 0 || others.length === 0) return [];
  const sung = soundingNotes(voice.notes);
  const sings = measuresSung(score, sung);
  const onlyLeads = measuresOfPickup(score, sung);
  const plays = measuresStruck(
    score,
    others.flatMap((p) => soundingNotes(p.notes)),
  );
  const runs: Instrumental[] = [];
  const last = score.measures.length - 1;
  for (let from = 0; from <= last; from++) {
    if (sings.has(from)) continue;
    let to = from;
    while (to < last && !sings.has(to + 1)) to += 1;
    // A pickup of the singer's is no verse yet: the players still have its measure.
    if (onlyLeads.has(to + 1)) to += 1;
    const isAtTheEdge = from === 0 || to === last;
    const isPlayed = score.measures.slice(from, to + 1).some((m) => plays.has(m.index));
    const full = score.measures.slice(from, to + 1).filter((m) => m.beginsAt === 0).length;
    if (isPlayed && full >= (isAtTheEdge ? 1 : FEWEST)) runs.push({ from, to });
    from = to;
  }
  return runs;
}

/** Whether a measure (by its index) lies in one of them. */
export const inInstrumental = (runs: readonly Instrumental[], measure: number): boolean =>
  runs.some(({ from, to }) => from <= measure && measure <= to);

/** Measures in which the singer strikes a note, or holds one over the first half. */
function measuresSung(score: Score, voice: readonly SoundingNote[]): ReadonlySet<number> {
  const sung = new Set<number>(measuresStruck(score, voice));
  for (const note of voice) {
    const end = note.onset + note.duration;
    for (let i = measureAt(score.measures, note.onset).index + 1; i < score.measures.length; i++) {
      const measure = score.measures[i]!;
      if (end <= measure.start) break;
      if (Math.min(end, endOf(measure)) - measure.start > measure.length / 2) sung.add(i);
    }
  }
  return sung;
}

/** Measures in whose second half alone the singer comes in. */
function measuresOfPickup(score: Score, voice: readonly SoundingNote[]): ReadonlySet<number> {
  const groups = byMeasure(score.measures, voice);
  return new Set(
    score.measures
      .filter((m, i) => {
        const first = groups[i]![0];
        return first !== undefined && first.onset - m.start >= m.length / 2;
      })
      .map((m) => m.index),
  );
}

const measuresStruck = (score: Score, notes: readonly SoundingNote[]): ReadonlySet<number> =>
  new Set(notes.map((n) => measureAt(score.measures, n.onset).index));
