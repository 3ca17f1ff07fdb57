/** Close intervals so low that they blur: seconds and thirds below about C3, and triads there. Where each stands, and what is clearer. */
import { byOnset, measureAt, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Part } from '../score/score';
import type { Ticks } from '../score/ticks';
import { pitchName, toMidi, type Pitch } from '../theory/pitch';
import { isClear } from './register';

export interface MuddyChord {
  /** Index of the measure. */
  readonly measure: number;
  readonly onset: Ticks;
  readonly hand: 'right' | 'left';
  /** Ids of the struck notes, the lowest first. */
  readonly notes: readonly string[];
  /** What it is, and what would be clearer. */
  readonly text: string;
}

/** Widest interval between neighbours that is close: a major third. */
const CLOSE = 4;
/** Widest chord that is offered instead: a tenth. */
const WIDEST = 16;

/** The muddy chords of a keyboard part, in order of time; what comes again in a measure is said once there. */
export function muddyChords(part: Part, measures: readonly Measure[]): MuddyChord[] {
  const sounding = soundingNotes(part.notes);
  const seen = new Set<string>();
  return (['right', 'left'] as const)
    .flatMap((hand) =>
      byOnset(sounding.filter((n) => (n.staff === 1) === (hand === 'right'))).flatMap(
        ({ onset, notes }): MuddyChord[] => {
          const chord = [...notes].sort((a, b) => a.midi - b.midi);
          if (!isMuddy(chord.map((n) => n.midi))) return [];
          const measure = measureAt(measures, onset).index;
          const names = chord.map((n) => pitchName(n.pitch)).join(' ');
          const key = `${measure} ${hand} ${names}`;
          if (seen.has(key)) return [];
          seen.add(key);
          return [
            {
              measure,
              onset,
              hand,
              notes: chord.map((n) => n.id),
              text: `${names} blurs so low: ${clearer(chord)}`,
            },
          ];
        },
      ),
    )
    .sort((a, b) => a.onset - b.onset);
}

/** Two neighbours lie close where that is not clear. MIDI numbers, rising. */
const isMuddy = (keys: readonly number[]): boolean =>
  keys.some((key, i) => i > 0 && key - keys[i - 1]! <= CLOSE && !isClear([keys[i - 1]!, key]));

/** The open voicing over the same bass, where there is one within a tenth; and the chord an octave higher. */
function clearer(chord: readonly SoundingNote[]): string {
  const [bass, ...upper] = chord.map((n) => n.pitch) as [Pitch, ...Pitch[]];
  const raised = (pitch: Pitch): Pitch => ({ ...pitch, octave: pitch.octave + 1 });
  const ways = upper
    // The third goes up first: root, fifth, tenth.
    .map((_, i) => [bass, ...upper.map((pitch, k) => (k === i ? raised(pitch) : pitch))])
    .map((pitches) => pitches.sort((a, b) => toMidi(a) - toMidi(b)))
    .filter((pitches) => {
      const keys = pitches.map(toMidi);
      return !isMuddy(keys) && keys.at(-1)! - keys[0]! <= WIDEST;
    });
  const open = ways[0] ? `open it as ${ways[0].map(pitchName).join(' ')}, or ` : '';
  return `${open}play it an octave higher`;
}
