/**
 * Ornaments as pianists are taught to play them: a trill begins on the upper note and fills its note, a turn goes round it. The
 * neighbours are those of the key, unless the sign has an accidental. Mordents are left to the player, as ABC's own converter leaves
 * them: schools differ in which neighbour they touch.
 */
import { alterInKey } from '../../score/accidentals';
import { letterAt, toMidi } from '../../theory/pitch';
import { measureAt } from '../../score/query';
import type { Measure, Note, Ornament } from '../../score/score';
import { TICKS_PER_QUARTER, type Ticks } from '../../score/ticks';
import type { PlayedNote } from '../played';

/** One stroke of a trill. */
const STROKE = TICKS_PER_QUARTER / 8;
/** A turn takes no longer than a quarter; the note is held after it. */
const TURN = TICKS_PER_QUARTER;

/** What is struck, in steps from the written note: the last is held. */
interface Figure {
  readonly steps: readonly (-1 | 0 | 1)[];
  readonly each: Ticks;
}

function figureOf(kind: Ornament['kind'], length: Ticks): Figure | undefined {
  switch (kind) {
    case 'trill-mark': {
      const each = Math.min(STROKE, Math.floor(length / 4));
      const pairs = Math.floor(length / each / 2);
      return { steps: Array.from({ length: pairs }, () => [1, 0] as const).flat(), each };
    }
    case 'turn':
      return { steps: [0, 1, 0, -1, 0], each: Math.floor(Math.min(length, TURN) / 5) };
    case 'inverted-turn':
      return { steps: [0, -1, 0, 1, 0], each: Math.floor(Math.min(length, TURN) / 5) };
    default:
      return undefined;
  }
}

/** The strokes of a note with ornaments; the note itself where none of them is known or it is too short. */
export function ornamented<T extends PlayedNote>(note: T, written: Note, measures: readonly Measure[]): T[] {
  const [ornament, figure] =
    written.ornaments?.map((o) => [o, figureOf(o.kind, note.duration)] as const).find(([, f]) => f) ?? [];
  if (!ornament || !figure || figure.each < 1 || figure.steps.length < 2) return [note];
  const { key } = measureAt(measures, written.onset);
  const midiOf = (step: -1 | 0 | 1): number => {
    if (step === 0) return note.midi;
    const neighbour = letterAt(written.pitch, step);
    return toMidi({ ...neighbour, alter: ornament.alter ?? alterInKey(neighbour.step, key.fifths) });
  };
  return figure.steps.map((step, i) => {
    const onset = note.onset + i * figure.each;
    const isLast = i === figure.steps.length - 1;
    return {
      ...note,
      midi: midiOf(step),
      onset,
      duration: isLast ? note.onset + note.duration - onset : figure.each,
    };
  });
}
