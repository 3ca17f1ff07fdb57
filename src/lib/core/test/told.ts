/** What a practice room tells of a step: the right hand of four measures, as the ear heard it. */
import type { RoomSent } from '../lessons/record';

type ToldStep = Extract<RoomSent, { kind: 'event' }>;

export const toldStep = (token: string, change: Partial<ToldStep> = {}): ToldStep => ({
  kind: 'event',
  token,
  assignment: 'a1',
  chunk: 'm0..m3',
  step: 'right',
  hand: 'right',
  counting: false,
  tempo: 60,
  grade: 3,
  by: 'ear',
  ...change,
});
