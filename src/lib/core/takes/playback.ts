/** A take as it can be heard again: its keystrokes, in their own time. */
import { TICKS_PER_QUARTER } from '../score/ticks';
import type { Performance, PlayedNote } from '../performance/played';
import type { Keystroke } from './keystroke';

/** A key whose end nobody heard rings so long, in seconds, or until it is struck again. */
const RINGS = 0.7;
const USUAL_VELOCITY = 80;
/** Any tempo will do: what was played has its own. */
const TEMPO = 60;

/** Keystrokes as a performance of one measure (by its index), from the first key on. */
export function playbackOf(keystrokes: readonly Keystroke[], measure: number): Performance {
  const ticks = (seconds: number): number => Math.round((seconds * TICKS_PER_QUARTER * TEMPO) / 60);
  const struck = [...keystrokes].sort((a, b) => a.onset - b.onset);
  const begins = struck[0]?.onset ?? 0;
  const notes = struck.map(({ midi, onset, velocity = USUAL_VELOCITY }, i): PlayedNote => {
    const again = struck.slice(i + 1).find((k) => k.midi === midi)?.onset ?? Infinity;
    return {
      id: `played ${i}`,
      midi,
      staff: midi >= 60 ? 1 : 2,
      part: 0,
      onset: ticks(onset - begins),
      duration: Math.max(1, ticks(Math.min(RINGS, again - onset))),
      velocity,
    };
  });
  const end = Math.max(1, ...notes.map((n) => n.onset + n.duration));
  return {
    notes,
    measures: [{ index: measure, onset: 0, length: end }],
    pedals: [],
    tempi: [{ onset: 0, tempo: TEMPO }],
    end,
  };
}
