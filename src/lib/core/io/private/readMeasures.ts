/**
 * What the readers of written formats have in common: parts as lists of measures, each item placed from the start of
 * its own measure. `assembleScore` lays them over one frame of measures.
 */
import type { BeamPlace } from './groups';
import type {
  ChordSymbol,
  ClefMark,
  Mark,
  Measure,
  MeasureChange,
  Note,
  PedalMark,
  TempoMark,
  TimeSignature,
} from '../../score/score';
import type { Ticks } from '../../score/ticks';
import type { Key } from '../../theory/key';

/** One measure of one part, onsets counted from the start of the measure. */
export interface ReadMeasure {
  readonly number: string;
  /** Its length is what it holds, whatever the metre. */
  readonly implicit: boolean;
  /** A short measure that leads into the next, wherever it stands. */
  readonly pickup?: boolean;
  /** How far notes, rests and forwards reach; 0 for an empty measure and one that holds a whole-measure rest only. */
  readonly content: Ticks;
  readonly time: TimeSignature;
  readonly key: Key;
  readonly changes: readonly MeasureChange[];
  readonly notes: readonly Note[];
  readonly symbols: readonly ChordSymbol[];
  readonly pedals: readonly PedalMark[];
  readonly clefs: readonly ClefMark[];
  readonly marks: readonly Mark[];
  readonly tempos: readonly TempoMark[];
  /** Where beams begin and go on, from the start of the measure. */
  readonly beamed?: readonly BeamPlace[];
  readonly section?: string;
  readonly frame: Pick<
    Measure,
    'barline' | 'repeatStart' | 'repeatEnd' | 'repeatTimes' | 'ending' | 'endingEnd' | 'route'
  >;
}

export interface ReadPart {
  readonly id: string;
  readonly name: string;
  readonly staves: number;
  readonly measures: readonly ReadMeasure[];
}
