/**
 * Why this finger: the line is solved again with another finger on the note, and the rules that get dearer by it give
 * the sentence. So the reason is what decided, not a phrase that always fits.
 */
import { pitchName } from '../score/pitch';
import type { SoundingNote } from '../score/query';
import { RULES, type Rule } from './cost';
import { FINGERS, type Finger } from './grips';
import { fingerLine, type Fingering, type FingeringSettings } from './solve';

const SAYS: Readonly<Record<Rule, string>> = {
  stretch: 'stretches the hand too far',
  cramped: 'cramps the fingers',
  wide: 'opens the hand wider than is relaxed',
  move: 'makes the hand move once more',
  'far-move': 'makes the hand move further',
  weak: 'leans on a weaker finger',
  'three-four': 'puts the third and fourth fingers next to each other',
  'three-four-five': 'makes the weak fingers follow one another',
  'black-thumb': 'puts the thumb on a black key',
  'black-fifth': 'puts the little finger on a black key',
  'four-on-black': 'lifts the fourth finger onto a black key after the third',
  pass: 'makes the thumb pass under',
  cross: 'crosses fingers that do not cross',
  'same-finger': 'puts one finger on two different keys in a row',
  'change-on-repeat': 'changes the finger on a repeated note',
  'chord-shape': 'takes the chord in an unusual shape',
  'let-go': 'lets go of a note that is held',
  'same-figure': 'fingers the same figure differently from elsewhere',
};

export interface FingerReason {
  readonly finger: Finger;
  /** The best other finger, and by how much the whole line gets dearer with it. */
  readonly other: Finger;
  readonly dearer: number;
  readonly text: string;
}

/** Explains the finger of one note of a line by what the next best finger would cost. */
export function explainFinger(
  notes: readonly SoundingNote[],
  settings: FingeringSettings,
  solved: Fingering,
  noteId: string,
): FingerReason | undefined {
  const finger = solved.fingers.get(noteId);
  const note = notes.find((n) => n.id === noteId);
  if (!finger || !note) return undefined;
  const others = FINGERS.filter((f) => f !== finger).map((other) => ({
    other,
    result: fingerLine(notes, { ...settings, locks: new Map([...settings.locks, [noteId, other]]) }),
  }));
  const next = others.reduce((a, b) => (b.result.cost < a.result.cost ? b : a));
  const dearer = next.result.cost - solved.cost;
  const differences = RULES.map((rule, i) => ({ rule, by: next.result.costs[i]! - solved.costs[i]! }))
    .filter((d) => d.by > 0.05)
    // What the figure elsewhere says is only the reason where nothing in the hand itself is.
    .sort((a, b) => Number(a.rule === 'same-figure') - Number(b.rule === 'same-figure') || b.by - a.by);
  const name = pitchName(note.pitch);
  const [first, second] = differences;
  const text = !first
    ? `${finger} on ${name}; ${next.other} would do as well.`
    : dearer < 0.3
      ? `${finger} on ${name}; ${next.other} is nearly as good, but ${SAYS[first.rule]}.`
      : `${finger} on ${name}: ${next.other} ${SAYS[first.rule]}${second && second.rule !== 'same-figure' && second.by > first.by / 3 ? ` and ${SAYS[second.rule]}` : ''}.`;
  return { finger, other: next.other, dearer, text };
}
