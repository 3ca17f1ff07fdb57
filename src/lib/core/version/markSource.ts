/** Fingers and pedal for a source as it stands, without arranging it: the upper staff is the right hand, the lower the left. */
import { formOf } from '../analysis/form';
import { chordsOf } from '../analysis/harmony';
import type { Hand } from '../fingering/events';
import { fingerHand, phraseStarts, struckBy } from '../fingering/fingerHand';
import type { Finger } from '../fingering/grips';
import { pedalPerHarmony } from '../pedal/pedal';
import { soundingNotes, type SoundingNote } from '../score/query';
import type { Part, Score } from '../score/score';

/** Notes of one hand in a part: staff 1 is the right hand, every other staff the left. */
export const handOfPart = (part: Part, hand: Hand): SoundingNote[] =>
  soundingNotes(part.notes.filter((n) => (n.staff === 1) === (hand === 'right')));

/** A finger for every struck note of a part, by its id. `keep` takes the fingers that the source has as locks. */
export function fingersOf(
  score: Score,
  part: Part,
  settings: { readonly reach: Readonly<Record<Hand, number>>; readonly keep: boolean },
): Map<string, Finger> {
  const form = formOf(score);
  const fingers = new Map<string, Finger>();
  for (const hand of ['right', 'left'] as const) {
    const locks = new Map(
      settings.keep
        ? struckBy(part, hand).flatMap((n) => (n.finger ? [[n.id, n.finger as Finger] as const] : []))
        : [],
    );
    const { fingering } = fingerHand(score, part, hand, form, {
      reach: settings.reach[hand],
      locks,
      steadiness: 1,
    });
    for (const [id, finger] of fingering.fingers) fingers.set(id, finger);
  }
  return fingers;
}

/** The part with its fingers written onto the notes. */
export const withFingers = (part: Part, fingers: ReadonlyMap<string, Finger>): Part => ({
  ...part,
  notes: part.notes.map((note) => {
    const { finger: _before, ...rest } = note;
    const finger = fingers.get(note.id);
    return finger ? { ...rest, finger } : rest;
  }),
});

/** The score with pedal per harmony in place of its own marks. */
export const withPedal = (score: Score, part: Part): Score => ({
  ...score,
  pedals: pedalPerHarmony(soundingNotes(part.notes), chordsOf(score), phraseStarts(score, formOf(score))),
});
