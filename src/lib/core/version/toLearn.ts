/** What plans need to know of a version: its measures, its form and how hard it is. */
import { beatsIn } from '../score/places';
import type { Version } from './realise';

export const toLearn = ({ score, form, difficulty }: Pick<Version, 'score' | 'form' | 'difficulty'>) => ({
  ids: score.measures.map((m) => m.id),
  beats: score.measures.map(beatsIn),
  numbers: score.measures.map((m) => m.number),
  form,
  difficulty: difficulty.map((d) => d.score),
});
