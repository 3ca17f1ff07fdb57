/** Pedal per harmony: down with each new bass, up and down again as the chord changes, up where nothing sounds. */
import type { ChordSpan } from '../analysis/harmony';
import type { SoundingNote } from '../score/query';
import type { PedalMark } from '../score/score';
import type { Ticks } from '../score/ticks';

/**
 * Marks for notes of both hands under the given chords. `lifts` are ticks at which a phrase ends: the pedal comes up
 * there and goes down again with the next bass.
 */
export function pedalPerHarmony(
  notes: readonly SoundingNote[],
  chords: readonly ChordSpan[],
  lifts: ReadonlySet<Ticks>,
): PedalMark[] {
  const marks: PedalMark[] = [];
  const end = notes.reduce((latest, n) => Math.max(latest, n.onset + n.duration), 0);
  const basses = new Set(notes.filter((n) => n.staff === 2).map((n) => n.onset));
  const onsets = [...new Set(notes.map((n) => n.onset))].sort((a, b) => a - b);
  let down = false;
  let chordUnderPedal: ChordSpan | undefined;
  for (const onset of onsets) {
    const chord = chords.find((c) => c.onset <= onset && onset < c.onset + c.duration);
    const silence = silenceBefore(notes, onset);
    if (down && silence !== undefined) {
      marks.push({ onset: silence, type: 'stop' });
      down = false;
    }
    if (!basses.has(onset) || !chord?.chord) {
      // Never across a change of chord, even where no new bass is struck.
      if (down && chord !== chordUnderPedal) {
        marks.push({ onset, type: 'stop' });
        down = false;
      }
      continue;
    }
    if (!down) marks.push({ onset, type: 'start' });
    else if (chord !== chordUnderPedal || lifts.has(onset)) marks.push({ onset, type: 'change' });
    down = true;
    chordUnderPedal = chord;
  }
  if (down) marks.push({ onset: end, type: 'stop' });
  return marks;
}

/** Where the silence before an onset begins, if there is one. */
function silenceBefore(notes: readonly SoundingNote[], onset: Ticks): Ticks | undefined {
  let lastEnd = 0;
  for (const note of notes) {
    if (note.onset >= onset) break;
    lastEnd = Math.max(lastEnd, note.onset + note.duration);
  }
  return lastEnd < onset && lastEnd > 0 ? lastEnd : undefined;
}
