/** What the foot does at single notes where the teacher says so, in place of what the style of their measure does there. */
import type { Note } from '../score/score';
import type { ReasonedMark } from './pedal';

/** What is done at a note: pressed, lifted and pressed again, lifted, or nothing. */
export const PEDAL_MARKS = ['down', 'change', 'up', 'none'] as const;
export type FootMark = (typeof PEDAL_MARKS)[number];

const TYPES = { down: 'start', change: 'change', up: 'stop' } as const;

/** The marks with what is decided by the ids of notes; the same where nothing is. */
export function withFoot(
  marks: readonly ReasonedMark[],
  notes: readonly Note[],
  decided: ReadonlyMap<string, FootMark>,
): readonly ReasonedMark[] {
  const at = new Map(
    notes.flatMap((n) => {
      const value = decided.get(n.id);
      return value === undefined ? [] : [[n.onset, value] as const];
    }),
  );
  if (at.size === 0) return marks;
  const made = [...at].flatMap(([onset, value]): ReasonedMark[] =>
    value === 'none' ? [] : [{ onset, type: TYPES[value], because: 'your choice' }],
  );
  return inTurn([...marks.filter((m) => !at.has(m.onset)), ...made].sort((a, b) => a.onset - b.onset));
}

/** A pedal that is down already is changed, not pressed again; one that is up cannot be lifted. */
function inTurn(marks: readonly ReasonedMark[]): ReasonedMark[] {
  let isDown = false;
  return marks.flatMap((mark): ReasonedMark[] => {
    if (mark.type === 'stop') {
      const was = isDown;
      isDown = false;
      return was ? [mark] : [];
    }
    const type = isDown ? 'change' : 'start';
    isDown = true;
    return [{ ...mark, type }];
  });
}
