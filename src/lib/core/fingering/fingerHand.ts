/** From a part of two staves to one hand's fingering: what it strikes, grace notes too, where phrases begin, how fast. */
import type { Form } from '../analysis/form';
import { beatLength, groupStarts } from '../score/metre';
import { toMidi } from '../theory/pitch';
import { soundingNotes, type SoundingNote } from '../score/query';
import type { Note, Part, Score } from '../score/score';
import type { Ticks } from '../score/ticks';
import type { Hand } from './events';
import { fingerWithFigures } from './figures';
import type { Finger } from './grips';
import type { Fingering, FingeringSettings } from './solve';
import type { Taste } from './taste';

export interface FingeredHand {
  readonly notes: readonly SoundingNote[];
  readonly fingering: Fingering;
  readonly settings: FingeringSettings;
}

interface HandWishes {
  /** Semitones that the hand holds. */
  readonly reach: number;
  /** Fingers that are decided, by note id. */
  readonly locks: ReadonlyMap<string, Finger>;
  /** 1, or more where the hand should stay in its position. */
  readonly steadiness: number;
  /** The house's hand. */
  readonly taste?: Taste;
}

/** Notes of one hand in a part: staff 1 is the right hand, every other staff the left. */
const staffOf = (notes: readonly Note[], hand: Hand): Note[] =>
  notes.filter((n) => (n.staff === 1) === (hand === 'right'));

/** What one hand of a part plays, tied notes joined, without grace notes. */
export const playedBy = (part: Part, hand: Hand): readonly SoundingNote[] =>
  soundingNotes(staffOf(part.notes, hand));

/** Everything that one hand of a part strikes, in order. A grace note comes a moment before the note that it leads to. */
export function struckBy(part: Part, hand: Hand): readonly SoundingNote[] {
  const own = staffOf(part.notes, hand);
  const graces = own.filter((n) => n.grace && !n.cue);
  if (graces.length === 0) return soundingNotes(own);
  const most = new Map<Ticks, number>();
  for (const { onset, grace } of graces) most.set(onset, Math.max(most.get(onset) ?? 0, grace!.order + 1));
  const plain = graces.map((n): SoundingNote => ({
    id: n.id,
    written: [n.id],
    onset: n.grace!.after ? n.onset + n.grace!.order + 1 : n.onset - (most.get(n.onset)! - n.grace!.order),
    duration: 1,
    pitch: n.pitch,
    midi: toMidi(n.pitch),
    staff: n.staff,
    voice: n.voice,
    articulations: n.articulations ?? [],
    slurStart: false,
    slurStop: false,
    ...(n.finger ? { finger: n.finger } : {}),
  }));
  return [...soundingNotes(own), ...plain].sort((a, b) => a.onset - b.onset || a.midi - b.midi);
}

/** Ticks at which a phrase begins for a hand: the pickup that leads into it is the tune's, which the right hand has as a rule. */
export const phraseStarts = (score: Score, form: Form, hand: Hand): Set<Ticks> =>
  new Set(form.phrases.map((p) => score.measures[p.from]!.start - (hand === 'right' ? (p.pickup ?? 0) : 0)));

/** Fingers one hand of a part, figures alike. */
export function fingerHand(
  score: Score,
  part: Part,
  hand: Hand,
  form: Form,
  wishes: HandWishes,
): FingeredHand {
  const notes = struckBy(part, hand);
  const { fingering, settings } = fingerWithFigures(notes, score.measures, {
    hand,
    ...wishes,
    resets: phraseStarts(score, form, hand),
    groups: groupStarts(score.measures),
    beat: beatLength(score.measures[0]!.time),
    tempo: score.tempo,
  });
  return { notes, fingering, settings };
}
