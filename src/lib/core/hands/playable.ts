/**
 * A keyboard part with every note in a hand that can play it: staff 1 is the right hand, staff 2 the left. Notes and
 * rhythm stay as they are; what a hand cannot reach goes to the other, and where neither can, the chord is rolled.
 */
import { byOnset, soundingNotes, type SoundingNote } from '../score/query';
import type { Measure, Note, Part } from '../score/score';
import { assignHands, type HandProposal, type HandReach } from './assign';
import { wideChords, type WideChord } from './wide';

export interface PlayablePart {
  readonly part: Part;
  readonly proposals: readonly HandProposal[];
  readonly wide: readonly WideChord[];
}

/** Voice numbers of notes that moved to another staff and found no voice there to join. */
const NEW_VOICE = { right: 901, left: 905 } as const;

export function playablePart(part: Part, measures: readonly Measure[], reach: HandReach): PlayablePart {
  const notes = soundingNotes(part.notes);
  if (notes.length === 0) return { part, proposals: [], wide: [] };
  const hasStaves = part.staves >= 2 || isOneHand(notes, reach);
  const { hands, proposals } = assignHands(
    hasStaves ? onStaves(notes, part) : notes,
    measures,
    reach,
    hasStaves,
  );
  const wide = wideChords(notes, (n) => hands.get(n.id)!, { measures, reach, hasPedal: true });
  // What stands in the other hand already needs no way of its own: only what is still too wide is rolled.
  const rolled = new Set(wide.flatMap((w) => w.notes));
  const moved = new Map<string, { staff: number; voice: number }>();
  for (const note of notes) {
    const hand = hands.get(note.id)!;
    const staff = hand === 'right' ? 1 : 2;
    if (staff === note.staff) continue;
    const neighbour = notes.find(
      (n) =>
        n.onset === note.onset &&
        n.duration === note.duration &&
        n.staff === staff &&
        hands.get(n.id) === hand,
    );
    for (const id of note.written) moved.set(id, { staff, voice: neighbour?.voice ?? NEW_VOICE[hand] });
  }
  if (moved.size === 0 && rolled.size === 0) return { part, proposals, wide };
  return {
    part: {
      ...part,
      staves: 2,
      notes: part.notes.map((note): Note => {
        const to = moved.get(note.id);
        return {
          ...note,
          ...(to ?? {}),
          ...(rolled.has(note.id) && !note.arpeggio ? { arpeggio: 'up' as const } : {}),
        };
      }),
    },
    proposals,
    wide,
  };
}

/** A part on one staff that one hand can play throughout is one hand's. */
const isOneHand = (notes: readonly SoundingNote[], reach: HandReach): boolean =>
  byOnset(notes).every(
    ({ notes: struck }) =>
      Math.max(...struck.map((n) => n.midi)) - Math.min(...struck.map((n) => n.midi)) <=
      Math.min(reach.right, reach.left),
  );

/** One staff alone is the right hand's, or the left hand's where it lies low as a whole. */
function onStaves(notes: readonly SoundingNote[], part: Part): readonly SoundingNote[] {
  if (part.staves >= 2) return notes;
  const mean = notes.reduce((sum, n) => sum + n.midi, 0) / notes.length;
  const staff = mean < 53 ? 2 : 1;
  return notes.map((n) => ({ ...n, staff }));
}
