/** For tests: a song of A B A, its plan, and events as they are written down. */
import { formOf } from '../analysis/form';
import { beatsIn } from '../score/places';
import { scoreFrom } from './shorthand';
import type { LessonEvent } from '../lessons/events';
import { chunksIn, proposedPlan, type Chunk, type MethodId, type ToLearn } from '../lessons/plan';
import { stepFacts } from '../lessons/steps';

const a = 'C4:4 | D4:4 | E4:4 | F4:4';
const b = 'G4:4 | A4:4 | B4:4 | C5:4';
export const SONG = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: [a, b, a].join(' | '),
});
export const GOAL = 80;
export const MUSIC: ToLearn & { readonly form: ReturnType<typeof formOf> } = {
  ids: SONG.measures.map((m) => m.id),
  beats: SONG.measures.map(beatsIn),
  form: formOf(SONG),
  difficulty: SONG.measures.map((_, i) => (i >= 4 && i < 8 ? 60 : 20)),
};
export const chunksBy = (method: MethodId): Chunk[] => chunksIn(proposedPlan(MUSIC, method), MUSIC, GOAL);

/** Events as a lesson makes them: each a number above the one before. */
export function recorder() {
  let id = 0;
  const next = (event: Partial<LessonEvent>): LessonEvent => {
    id += 1;
    const day = event.day ?? '2026-11-02';
    return {
      id,
      chunk: 'm0..m3',
      step: 'both',
      hand: stepFacts(event.step ?? 'both')?.hand ?? null,
      counting: false,
      tempo: 60,
      grade: null,
      by: 'teacher',
      at: `${day}T10:${String(id % 60).padStart(2, '0')}:00.000Z`,
      day,
      withdraws: null,
      ...event,
    };
  };
  return next;
}
