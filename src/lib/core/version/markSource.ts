/** Hands, fingers and pedal for a source as it stands, without arranging it. */
import { formOf } from '../analysis/form';
import { chordsOf } from '../analysis/harmony';
import type { Hand } from '../fingering/events';
import { fingerHand, phraseStarts, struckBy, type FingeredHand } from '../fingering/fingerHand';
import type { Finger } from '../fingering/grips';
import { blursUnder, type Blur } from '../pedal/blur';
import { pedalMarks, type PedalStyle, type ReasonedMark } from '../pedal/pedal';
import { soundingNotes } from '../score/query';
import type { Part, Score } from '../score/score';

interface SourceFingering {
  readonly reach: Readonly<Record<Hand, number>>;
  /** Takes the fingers that the source has as locks. */
  readonly keep: boolean;
}

/** Both hands of a part, fingered. */
export function fingeredHands(
  score: Score,
  part: Part,
  { reach, keep }: SourceFingering,
): Readonly<Record<Hand, FingeredHand>> {
  const form = formOf(score);
  const of = (hand: Hand): FingeredHand => {
    const own = keep ? struckBy(part, hand).filter((n) => n.finger) : [];
    return fingerHand(score, part, hand, form, {
      reach: reach[hand],
      locks: new Map(own.map((n) => [n.id, n.finger as Finger])),
      steadiness: 1,
    });
  };
  return { right: of('right'), left: of('left') };
}

/** A finger for every struck note of a part, by its id. */
export function fingersOf(score: Score, part: Part, settings: SourceFingering): Map<string, Finger> {
  const { right, left } = fingeredHands(score, part, settings);
  return new Map([...right.fingering.fingers, ...left.fingering.fingers]);
}

interface PedalledSource {
  readonly score: Score;
  readonly marks: readonly ReasonedMark[];
  readonly blurs: readonly Blur[];
}

/** The score with pedal in a style in place of its own marks, or with its own, and what blurs under it. */
export function withPedal(score: Score, part: Part, style: PedalStyle | 'source'): PedalledSource {
  const chords = chordsOf(score);
  const notes = soundingNotes(part.notes);
  const marks =
    style === 'source'
      ? score.pedals.map((m): ReasonedMark => ({ ...m, because: 'as in the source' }))
      : pedalMarks(notes, {
          measures: score.measures,
          chords,
          phraseStarts: phraseStarts(score, formOf(score), 'right'),
          styleIn: () => style,
        });
  return {
    score: { ...score, pedals: marks.map(({ onset, type }) => ({ onset, type })) },
    marks,
    blurs: blursUnder(notes, chords, marks),
  };
}
