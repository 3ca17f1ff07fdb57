/**
 * Where the barlines of a file really fall. Some programs write a pickup without the silence before it, so that every
 * measure begins too early: then the accents, the basses and the long notes stand elsewhere than on the first beats.
 */
import { measureLength, pulseLength } from '../../../score/metre';
import type { TimeSignature } from '../../../score/score';
import type { Ticks } from '../../../score/ticks';

export interface Placed {
  readonly onset: Ticks;
  readonly duration: Ticks;
  readonly midi: number;
  /** 1 right hand, 2 left hand. */
  readonly staff: 1 | 2;
}

/** How much better other barlines must fit before the file's own are given up: as a factor and as an amount. */
const CLEARLY = { factor: 1.15, amount: 0.08 };
/** A melody by itself says less than a melody with basses. */
const CLEARLY_ALONE = { factor: 1.5, amount: 0.3 };
const FEWEST_BARLINES = 4;

/**
 * Length of the pickup that a file begins with, in ticks; 0 where its barlines are right. `from` is the file's first
 * barline, at which the music begins.
 */
export function unmarkedPickup(
  notes: readonly Placed[],
  time: TimeSignature,
  from: Ticks,
  drums: ReadonlyMap<Ticks, number> = new Map(),
): Ticks {
  const full = measureLength(time);
  const step = pulseLength(time);
  const end = Math.max(...notes.map((n) => n.onset + n.duration));
  if ((end - from) / full < FEWEST_BARLINES) return 0;
  const bassOnset = Math.min(...notes.filter((n) => n.staff === 2).map((n) => n.onset));
  const hasBass = Number.isFinite(bassOnset);
  const accents = accentsOf(notes, full, drums);
  const own = barlineFit(accents, notes, from, full, end);
  let best = { shift: 0, fit: own };
  for (let shift = step; shift < full; shift += step) {
    // The left hand comes in with the first full measure.
    if (hasBass && bassOnset < from + shift) break;
    const fit = barlineFit(accents, notes, from + shift, full, end);
    if (fit > best.fit) best = { shift, fit };
  }
  const { factor, amount } = hasBass ? CLEARLY : CLEARLY_ALONE;
  return best.fit > own * factor + amount ? best.shift : 0;
}

/** How much better three must fit than four to be believed. */
const RATHER_THREE = 1.12;

/** The metre of music that names none: four quarters, or three where accents and basses come every three. */
export function likelyMetre(
  notes: readonly Placed[],
  drums: ReadonlyMap<Ticks, number> = new Map(),
): TimeSignature {
  const end = Math.max(...notes.map((n) => n.onset + n.duration));
  const fitOf = (beats: number): number => {
    const full = measureLength({ beats, beatType: 4 });
    const accents = accentsOf(notes, full, drums);
    const shifts = Array.from({ length: beats }, (_, i) => (i * full) / beats);
    return Math.max(...shifts.map((shift) => barlineFit(accents, notes, shift, full, end)));
  };
  return { beats: fitOf(3) > fitOf(4) * RATHER_THREE ? 3 : 4, beatType: 4 };
}

const MIDDLE_C = 60;

/** Weight of each onset: long notes and basses are felt as accents, a new bass most of all; what the drums say comes to it. */
function accentsOf(
  notes: readonly Placed[],
  full: Ticks,
  drums: ReadonlyMap<Ticks, number>,
): Map<Ticks, number> {
  const accents = new Map<Ticks, number>(drums);
  const add = (onset: Ticks, weight: number): void =>
    void accents.set(onset, (accents.get(onset) ?? 0) + weight);
  for (const note of notes) add(note.onset, Math.min(1, note.duration / full));
  const lowest = new Map<Ticks, number>();
  for (const { onset, midi, staff } of notes)
    if (staff === 2) lowest.set(onset, Math.min(midi, lowest.get(onset) ?? 127));
  const mean = [...lowest.values()].reduce((sum, midi) => sum + midi, 0) / Math.max(1, lowest.size);
  let bass: number | undefined;
  for (const [onset, midi] of [...lowest].sort((x, y) => x[0] - y[0])) {
    // The lower, the heavier; chords above a low note are not basses.
    add(onset, Math.max(0, MIDDLE_C - midi) / 30);
    if (midi > mean) continue;
    if (bass === undefined || midi % 12 !== bass % 12) add(onset, 0.3);
    bass = midi;
  }
  return accents;
}

/** Notes in order of time. Mean accent on barlines that fall at `from` and every `full` ticks; notes held across one speak against it. */
function barlineFit(
  accents: ReadonlyMap<Ticks, number>,
  notes: readonly Placed[],
  from: Ticks,
  full: Ticks,
  end: Ticks,
): number {
  let sum = 0;
  let count = 0;
  let next = 0; // first note that is not yet begun
  let heldUntil = 0;
  for (let at = from; at < end; at += full) {
    for (; next < notes.length && notes[next]!.onset < at; next++)
      heldUntil = Math.max(heldUntil, notes[next]!.onset + notes[next]!.duration);
    const accent = accents.get(at) ?? 0;
    const crossed = heldUntil > at;
    sum += accent - (crossed && accent === 0 ? 0.6 : 0);
    count += 1;
  }
  return count === 0 ? 0 : sum / count;
}
