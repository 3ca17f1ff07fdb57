/** What each limit of a level is called. */
import type { LevelContract } from '$core/arrange/levels';

export const LIMIT_NAMES: Readonly<Record<keyof LevelContract, string>> = {
  level: 'level',
  name: 'name',
  accidentals: 'sharps or flats',
  rightNotes: 'right-hand notes at once',
  leftNotes: 'left-hand notes at once',
  span: 'widest span in half steps',
  shortestSimple: 'shortest note in simple meter',
  shortestCompound: 'shortest note in compound meter',
  dotted: 'dotted notes in simple meter',
  dottedCompound: 'dotted notes in compound meter',
  ties: 'ties',
  tuplets: 'tuplets',
  leap: 'widest leap in half steps',
  leftOnsets: 'left-hand notes in a row',
  overlap: 'overlapping hands',
  pedal: 'pedal',
  tempoShare: 'goal tempo',
  accompaniment: 'accompaniment',
  steadiness: 'staying in position',
};
