import { z } from 'zod';
import { beatLength, endOf, isCompound, measureLength } from '../../score/metre';
import { measureAt } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { notate } from '../../score/notate';
import { defineKind } from '../kind';
import { replaced, struckChords, writtenOf, type StruckChord } from '../notes';

interface FigureFacts {
  readonly name: string;
  /** Places in a full measure at which is struck; undefined where a chord is struck once and held. */
  readonly strokes: ((measure: Measure) => readonly Ticks[]) | undefined;
}

const every =
  (length: (measure: Measure) => Ticks, after = 0) =>
  (measure: Measure): Ticks[] => {
    const step = length(measure);
    const places: Ticks[] = [];
    for (let at = after * step; at < measureLength(measure.time); at += step) places.push(at);
    return places;
  };
const beat = (m: Measure): Ticks => beatLength(m.time);

const FIGURES = {
  held: { name: 'held', strokes: undefined },
  twice: { name: 'twice in the measure', strokes: every((m) => measureLength(m.time) / 2) },
  beats: { name: 'on each beat', strokes: every(beat) },
  halves: { name: 'on each half of the beat', strokes: every((m) => beat(m) / (isCompound(m.time) ? 3 : 2)) },
  after: { name: 'after each beat', strokes: every(beat, 0.5) },
  long: {
    name: 'long and short',
    strokes: (m) =>
      every(beat)(m).flatMap((at, i) => (i % 2 === 0 ? [at] : [at + beat(m) / (isCompound(m.time) ? 3 : 2)])),
  },
} as const satisfies Record<string, FigureFacts>;

type Figure = keyof typeof FIGURES;
const FIGURE_IDS = Object.keys(FIGURES) as [Figure, ...Figure[]];

/** The rhythm in which the left hand strikes what it holds in a measure. */
export const figureRhythm = defineKind({
  id: 'figure',
  name: 'Rhythm of the left hand',
  value: z.enum(FIGURE_IDS),
  scopes: ['measure', 'range', 'section'],
  stage: 'hands',
  says: (value) => `left hand struck ${FIGURES[value].name}`.replace('struck held', 'held'),
  choices: ({ isSingAlong }) => (isSingAlong ? [] : FIGURE_IDS.map((id) => [id, FIGURES[id].name] as const)),
  apply(notes, held, { measures, chordAt, refuse }) {
    return measures.reduce((changed, measure) => {
      const value = held.measures[measure.index];
      if (!value) return changed;
      const own = struckChords(changed).filter(
        (c) => c.staff === 2 && measureAt(measures, c.onset).index === measure.index,
      );
      if (own.length === 0) {
        refuse(measure.index, 'the left hand strikes nothing here');
        return changed;
      }
      const { strokes } = FIGURES[value];
      // A chord that is struck once stands where its harmony begins; strokes have whatever is in force.
      const changes = own.filter((c, i) => i === 0 || chordAt(c.onset) !== chordAt(own[i - 1]!.onset));
      const onsets = strokes
        ? strokes(measure)
            .map((at) => measure.start + at - measure.beginsAt)
            .filter((at) => at >= measure.start && at < endOf(measure))
        : changes.map((c) => c.onset);
      if (onsets.length === 0) return changed;
      const made = onsets.flatMap((onset, i) => {
        const group = (strokes ? own : changes).findLast((c) => c.onset <= onset) ?? own[0]!;
        const again = onsets
          .slice(0, i)
          .filter(
            (o) => ((strokes ? own : changes).findLast((c) => c.onset <= o) ?? own[0]!) === group,
          ).length;
        return strokesOf(changed, group, onset, (onsets[i + 1] ?? endOf(measure)) - onset, again, measures);
      });
      return replaced(
        changed,
        own.flatMap((c) => c.notes),
        made,
      );
    }, notes);
  },
});

/** A chord struck at an onset; the first time under its own ids. */
function strokesOf(
  notes: readonly Note[],
  group: StruckChord,
  onset: Ticks,
  duration: Ticks,
  again: number,
  measures: readonly Measure[],
): Note[] {
  return notate(
    measures,
    group.notes.flatMap((struck) => {
      const [written] = writtenOf(notes, struck);
      if (!written) return [];
      const {
        tie: _tie,
        tuplet: _tuplet,
        brackets: _brackets,
        slurs: _slurs,
        lyrics: _lyrics,
        ...note
      } = written;
      return [{ ...note, id: again === 0 ? note.id : `${note.id}r${again}`, onset, duration }];
    }),
  );
}
