/** What would blur under a pedal as it is marked, and where. */
import type { ChordSpan } from '../analysis/harmony';
import { pitchName } from '../theory/pitch';
import type { SoundingNote } from '../score/query';
import type { PedalMark } from '../score/score';
import type { Ticks } from '../score/ticks';
import { chordSymbol } from '../theory/chord';
import { lowNeighbour } from './pedal';

export interface Blur {
  readonly onset: Ticks;
  readonly kind: 'neighbours' | 'chords';
  /** "A2 and B2 sound into each other", "G is still under the pedal when D7 begins" */
  readonly text: string;
}

/**
 * Two low notes a second apart, or the notes of two chords, that sound under one pedal. Each place once: the first note
 * that blurs after the pedal went down, of either kind.
 */
export function blursUnder(
  notes: readonly SoundingNote[],
  chords: readonly ChordSpan[],
  pedals: readonly PedalMark[],
): Blur[] {
  const sorted = [...notes].sort((a, b) => a.onset - b.onset);
  const blurs: Blur[] = [];
  let first = 0;
  for (const [from, to] of stretchesDown(pedals)) {
    while (first < sorted.length && sorted[first]!.onset + sorted[first]!.duration <= from) first += 1;
    const under: SoundingNote[] = [];
    const said = new Set<Blur['kind']>();
    const say = (blur: Blur): void => {
      if (!said.has(blur.kind)) blurs.push(blur);
      said.add(blur.kind);
    };
    let chord: ChordSpan | undefined;
    for (let i = first; i < sorted.length && sorted[i]!.onset < to; i++) {
      const note = sorted[i]!;
      if (note.onset + note.duration <= from) continue;
      const at = Math.max(from, note.onset);
      const other = lowNeighbour(note, under);
      if (other)
        say({
          onset: at,
          kind: 'neighbours',
          text: `${pitchName(other.pitch)} and ${pitchName(note.pitch)} blur together`,
        });
      const here = chords.find((c) => c.onset <= at && at < c.onset + c.duration);
      if (here?.chord && chord?.chord && here !== chord)
        say({
          onset: at,
          kind: 'chords',
          text: `${chordSymbol(chord.chord)} is still under the pedal when ${chordSymbol(here.chord)} begins`,
        });
      if (here?.chord) chord = here;
      under.push(note);
    }
  }
  return blurs.sort((a, b) => a.onset - b.onset);
}

/** From when to when the pedal is down. A pedal that is never lifted stays down for good. */
function stretchesDown(pedals: readonly PedalMark[]): [Ticks, Ticks][] {
  const stretches: [Ticks, Ticks][] = [];
  let down: Ticks | undefined;
  for (const { onset, type } of [...pedals].sort((a, b) => a.onset - b.onset || order(a) - order(b))) {
    if (down !== undefined && onset > down) stretches.push([down, onset]);
    down = type === 'stop' ? undefined : onset;
  }
  if (down !== undefined) stretches.push([down, Infinity]);
  return stretches;
}

/** At one tick the foot goes up before it goes down. */
const order = ({ type }: PedalMark): number => (type === 'stop' ? 0 : 1);
