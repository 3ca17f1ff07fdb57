/** Steps and chunks of a piece in words. */
import { covers, placesText } from '../score/places';
import { placesOf } from './chunkId';
import type { Chunk, Step } from './plan';
import { REVIEW, stepFacts } from './steps';

/** What words need to know of a piece: its measures by id and printed number, its sections, and its plan. */
export interface PieceInWords {
  readonly ids: readonly string[];
  readonly numbers: readonly string[];
  readonly form: {
    readonly sections: readonly { readonly label: string; readonly from: number; readonly to: number }[];
  };
  readonly plans: readonly { readonly chunk: Chunk; readonly steps: readonly Step[] }[];
}

/** The name of a step of a piece. */
export const nameOf = ({ plans }: Pick<PieceInWords, 'plans'>, step: string): string =>
  step === REVIEW
    ? 'Play it again'
    : (plans.flatMap((p) => p.steps).find((s) => s.id === step)?.says ?? stepFacts(step)?.says ?? 'A step');

/** "A, measures 1 to 4". */
export function whereIn({ ids, numbers, form }: Omit<PieceInWords, 'plans'>, chunk: string): string {
  const places = placesOf(ids, chunk);
  if (!places) return 'measures that aren’t in this version';
  const { from } = places;
  const section = form.sections.find((s) => from >= s.from && from <= s.to)?.label ?? '';
  const isWhole = covers(places, { from: 0, to: ids.length - 1 });
  return isWhole ? 'all of it' : `${section ? `${section}, ` : ''}${placesText(numbers, places)}`;
}
