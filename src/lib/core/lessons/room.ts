/** What a practice room is about: today's steps of one student, as they are set or, where nothing is, as they are next. */
import type { TimeSignature } from '../score/score';
import type { Version } from '../version/realise';
import type { Places } from '../score/places';
import { chunkOf, placesOf } from './chunkId';
import { nameOf, whereIn, type PieceInWords } from './inWords';
import { playedIn } from './plan';
import { playedBy, stepFacts, type StepHand } from './steps';
import type { WeekItem } from './week';

/** A step of today, ready to be practised. Tempi are quarter notes per minute, measures by index. */
export interface RoomTask extends Places {
  readonly assignment: string;
  readonly title: string;
  readonly time: TimeSignature;
  readonly chunk: string;
  /** What of the piece is shown and played, named like a chunk: its places. */
  readonly shows: string;
  /** "A, measures 1 to 4" */
  readonly where: string;
  readonly step: string;
  /** The step's name. */
  readonly says: string;
  /** null where nothing is played. */
  readonly hand: StepHand | null;
  readonly counting: boolean;
  readonly tempo: number;
  /** The rungs up to the goal, where the step climbs them. */
  readonly ladder: readonly number[];
  /** A day. */
  readonly minutes: number;
  readonly why: 'next' | 'due';
  /** It was done today, by the student's word or the ear's. */
  readonly isDone: boolean;
}

/** What a room plays, hears and shows of a piece. */
export interface RoomPiece {
  readonly music: Pick<Version, 'score' | 'feel' | 'counts'>;
  /** Drawn music by what a step shows, a picture a line. */
  readonly pictures: Readonly<Record<string, readonly string[]>>;
}

/** Names a task among those of a day. */
export const taskId = ({
  assignment,
  chunk,
  step,
}: Pick<RoomTask, 'assignment' | 'chunk' | 'step'>): string => `${assignment} ${chunk} ${step}`;

/** Minutes of a week's line, shared between its steps in whole minutes; the first has what is left over. */
function sharedMinutes(minutes: number, steps: number): number[] {
  const each = Math.floor(minutes / Math.max(1, steps));
  return Array.from({ length: steps }, (_, i) => (i === 0 ? minutes - each * (steps - 1) : each));
}

/** A piece as it is practised. */
interface PractisedPiece extends PieceInWords {
  readonly id: string;
  readonly title: string;
  readonly time: TimeSignature;
  readonly goalTempo: number;
}

/** The tasks of a line of the week; none where its measures are not in the piece. `isDone`: whether a step was done today. */
export function tasksOf(
  piece: PractisedPiece,
  item: WeekItem,
  isDone: (step: string) => boolean = () => false,
): RoomTask[] {
  const places = placesOf(piece.ids, item.chunk);
  if (!places) return [];
  const chunks = piece.plans.map((p) => p.chunk);
  const minutes = sharedMinutes(item.minutes, item.steps.length);
  return item.steps.map((step, i): RoomTask => {
    const planned = piece.plans.find((p) => p.chunk.id === item.chunk)?.steps.find((s) => s.id === step);
    const played = playedIn(step, places, chunks).places;
    return {
      assignment: item.assignment,
      title: piece.title,
      time: piece.time,
      chunk: item.chunk,
      ...played,
      shows: chunkOf(piece.ids, played),
      where: whereIn(piece, item.chunk),
      step,
      says: nameOf(piece, step),
      ...playedBy(step, planned),
      tempo: item.tempo ?? planned?.ladder[0] ?? piece.goalTempo,
      ladder: stepFacts(step)?.tempi === 'ladder' ? (planned?.ladder ?? []) : [],
      minutes: minutes[i]!,
      why: item.why,
      isDone: isDone(step),
    };
  });
}
