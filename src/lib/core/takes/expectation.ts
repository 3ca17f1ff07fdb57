/** What is to be played in a take: the onsets of a stretch of a performance, with the keys of each. */
import type { Performance, PlayedNote } from '../performance/played';
import { TICKS_PER_QUARTER, type Ticks } from '../score/ticks';

export type TakenHand = 'right' | 'left';

export interface ExpectedNote {
  /** Place among all notes of the expectation. */
  readonly index: number;
  /** Id of the written note. */
  readonly id: string;
  readonly midi: number;
  readonly hand: TakenHand;
  /** Index of the written measure. */
  readonly measure: number;
  /** Ticks from the beginning of the stretch. */
  readonly time: Ticks;
  /** It belongs to an ornament, which players play as they like: it can be right and is never missed. */
  readonly isOrnament: boolean;
}

/** What is struck together. */
export interface ExpectedOnset {
  readonly time: Ticks;
  readonly measure: number;
  /** It is the first of its measure. */
  readonly opensMeasure: boolean;
  readonly notes: readonly ExpectedNote[];
}

export interface Expectation {
  readonly onsets: readonly ExpectedOnset[];
  readonly notes: readonly ExpectedNote[];
  /** Quarter notes per minute that are asked for. */
  readonly tempo: number;
}

interface Stretch {
  /** First and last written measure, by index. */
  readonly from: number;
  readonly to: number;
  /** Ticks of the first measure that are not played, and ticks of the last one after which nothing is. */
  readonly skips?: Ticks;
  readonly until?: Ticks;
  /** One hand alone; without it both. */
  readonly hand?: TakenHand;
  /** Quarter notes per minute that are asked for; without it the performance's own. */
  readonly tempo?: number;
}

/** Notes that stand closer are struck together: what a rolled chord or a grace note spreads. */
const TOGETHER = TICKS_PER_QUARTER / 8;

/** The expectation of a stretch, as it is played the first time. Empty where no note stands there. */
export function expectationOf(
  performance: Performance,
  { hand, tempo = performance.tempi[0]?.tempo ?? 100, ...stretch }: Stretch,
): Expectation {
  const played = stretchOf(performance, stretch);
  const begins = played[0]?.onset ?? 0;
  const strikes = played.flatMap((measure) =>
    performance.notes
      .filter(
        ({ onset, staff }) =>
          onset >= measure.onset && onset < measure.onset + measure.length && isOf(hand, staff),
      )
      .map((note) => ({ note, measure: measure.index })),
  );
  const main = mainStrikes(strikes.map(({ note }) => note));
  // An ornament belongs to its note: whoever leaves it out has passed over nothing.
  const placed = strikes
    .map(({ note, measure }) => ({ note, measure, time: main.get(note.id)!.onset - begins }))
    .sort((a, b) => a.time - b.time || a.note.midi - b.note.midi);
  const notes = placed.map(({ note, measure, time }, index): ExpectedNote => ({
    index,
    id: note.id,
    midi: note.midi,
    hand: note.staff === 1 ? 'right' : 'left',
    measure,
    time,
    isOrnament: main.get(note.id) !== note,
  }));
  return { onsets: onsetsOf(notes), notes, tempo };
}

const isOf = (hand: TakenHand | undefined, staff: number): boolean =>
  !hand || (staff === 1) === (hand === 'right');

/** The measures of a stretch as they follow one another the first time that it is played. */
function stretchOf(
  { measures }: Performance,
  { from, to, skips = 0, until = Infinity }: Pick<Stretch, 'from' | 'to' | 'skips' | 'until'>,
): Performance['measures'] {
  const start = measures.findIndex((m) => m.index === from);
  if (start < 0) return [];
  const end = measures.findIndex((m, i) => i >= start && m.index === to);
  const own = measures.slice(start, end < 0 ? undefined : end + 1);
  return own.map((measure, i) => {
    const begins = i === 0 ? skips : 0;
    const ends = i === own.length - 1 ? Math.min(measure.length, until) : measure.length;
    return { ...measure, onset: measure.onset + begins, length: ends - begins };
  });
}

/** Of a written note that sounds as several the longest stroke is the note itself; the others adorn it. */
function mainStrikes(notes: readonly PlayedNote[]): ReadonlyMap<string, PlayedNote> {
  const main = new Map<string, PlayedNote>();
  for (const note of notes) {
    const known = main.get(note.id);
    if (!known || note.duration > known.duration) main.set(note.id, note);
  }
  return main;
}

function onsetsOf(notes: readonly ExpectedNote[]): readonly ExpectedOnset[] {
  const groups: ExpectedNote[][] = [];
  for (const note of notes) {
    const open = groups.at(-1);
    if (open && note.time - open[0]!.time < TOGETHER) open.push(note);
    else groups.push([note]);
  }
  return groups.map((group, i): ExpectedOnset => {
    const { time, measure } = group[0]!;
    return { time, measure, opensMeasure: groups[i - 1]?.[0]!.measure !== measure, notes: group };
  });
}
