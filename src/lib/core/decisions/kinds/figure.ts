import { z } from 'zod';
import { beatLength, endOf, isCompound, measureLength } from '../../score/metre';
import { byMeasure } from '../../score/query';
import type { Measure, Note } from '../../score/score';
import type { Ticks } from '../../score/ticks';
import { defineKind } from '../kind';
import { replaced, retimed, struckChords, type StruckChord } from '../private/notes';

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
  halves: { name: 'on each half beat', strokes: every((m) => beat(m) / (isCompound(m.time) ? 3 : 2)) },
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
export const figure = defineKind({
  id: 'figure',
  name: 'Left-hand rhythm',
  words: 'figure pattern rhythm thinner easier fewer strokes accompaniment',
  value: z.enum(FIGURE_IDS),
  scopes: ['measure', 'range', 'section'],
  says: (value) => `left hand: ${FIGURES[value].name}`,
  choices: ({ isSingAlong }) => (isSingAlong ? [] : FIGURE_IDS.map((id) => [id, FIGURES[id].name] as const)),
  apply(notes, held, { measures, chordAt, refuse }) {
    const left = byMeasure(
      measures,
      struckChords(notes).filter((c) => c.staff === 2),
    );
    const decided = measures.flatMap(
      (measure): { measure: Measure; figure: Figure; own: StruckChord[] }[] => {
        const [figure, own] = [held.measures[measure.index], left[measure.index]!];
        if (figure && own.length === 0) refuse(measure.index, 'the left hand plays nothing here');
        return figure && own.length > 0 ? [{ measure, figure, own }] : [];
      },
    );
    return replaced(
      notes,
      decided.flatMap(({ own }) => own.flatMap((c) => c.notes)),
      decided.flatMap(({ measure, figure, own }) => {
        // A chord that is struck once stands where its harmony begins; strokes have whatever is in force.
        const changes = own.filter((c, i) => i === 0 || chordAt(c.onset) !== chordAt(own[i - 1]!.onset));
        const places = FIGURES[figure].strokes?.(measure).map((at) => measure.start + at - measure.beginsAt);
        const groups = places ? own : changes;
        // What is held over from the measure before goes on until the hand strikes for the first time.
        const onsets = places?.filter((at) => at >= own[0]!.onset && at < endOf(measure)) ?? [];
        const struck = onsets.length > 0 ? onsets : changes.map((c) => c.onset);
        const end = Math.max(endOf(measure), ...own.at(-1)!.notes.map((n) => n.onset + n.duration));
        const times = new Map<StruckChord, number>();
        return struck.flatMap((onset, i) => {
          const group = groups.findLast((c) => c.onset <= onset) ?? own[0]!;
          const again = times.get(group) ?? 0;
          times.set(group, again + 1);
          return strokeOf(notes, group, onset, (struck[i + 1] ?? end) - onset, again, measures);
        });
      }),
    );
  },
});

/** A chord struck at an onset; the first time under its own ids. */
const strokeOf = (
  notes: readonly Note[],
  { notes: struck }: StruckChord,
  onset: Ticks,
  duration: Ticks,
  again: number,
  measures: readonly Measure[],
): Note[] =>
  struck.flatMap((note) => {
    const id = again === 0 ? note.id : `${note.id}r${again}`;
    return retimed(notes, note, onset, duration, measures, id);
  });
