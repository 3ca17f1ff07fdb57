/** The page's end of the realising worker. */
import type { FingerReason } from '$core/fingering/explain';
import type { LevelContract } from '$core/arrange/levels';
import type { RankedKey, VoiceRange } from '$core/keys/rank';
import type { Score } from '$core/score/score';
import type { Version } from '$core/version/realise';
import type { MeasureFingering } from '$core/version/why';
import type { Decision, Recipe } from '$core/version/recipe';
import type { RealiseRequest, RealiseResponse } from './realise.worker';

export interface Realiser {
  realise(recipe: Recipe, decisions: readonly Decision[]): Promise<Version>;
  why(recipe: Recipe, decisions: readonly Decision[], note: string): Promise<FingerReason | null>;
  others(recipe: Recipe, decisions: readonly Decision[], measure: number): Promise<MeasureFingering[]>;
  /** Every key judged for this recipe, with the usual weights. */
  keys(recipe: Recipe, voice: VoiceRange | null): Promise<RankedKey[]>;
  stop(): void;
}

/** Starts a worker for one piece. Browser only. */
export function startRealiser(source: Score, levels: readonly LevelContract[]): Realiser {
  const worker = new Worker(new URL('./realise.worker.ts', import.meta.url), { type: 'module' });
  const waiting = new Map<
    number,
    { resolve: (response: RealiseResponse) => void; reject: (error: Error) => void }
  >();
  let lastId = 0;
  const send = (request: RealiseRequest): void => worker.postMessage(request);
  const ask = (make: (id: number) => RealiseRequest): Promise<RealiseResponse> =>
    new Promise((resolve, reject) => {
      const id = ++lastId;
      waiting.set(id, { resolve, reject });
      send(make(id));
    });
  worker.addEventListener('message', (event: MessageEvent<RealiseResponse>) => {
    const request = waiting.get(event.data.id);
    waiting.delete(event.data.id);
    if ('error' in event.data) request?.reject(new Error(event.data.error));
    else request?.resolve(event.data);
  });
  worker.addEventListener('error', (event) => {
    for (const request of waiting.values())
      request.reject(new Error(event.message || 'The arranger stopped.'));
    waiting.clear();
  });
  send({ kind: 'source', source, levels: [...levels] });
  return {
    async realise(recipe, decisions) {
      const response = await ask((id) => ({ kind: 'realise', id, recipe, decisions: [...decisions] }));
      if (!('version' in response)) throw new Error('The arranger gave no version.');
      return response.version;
    },
    async why(recipe, decisions, note) {
      const response = await ask((id) => ({ kind: 'why', id, recipe, decisions: [...decisions], note }));
      return 'why' in response ? response.why : null;
    },
    async others(recipe, decisions, measure) {
      const response = await ask((id) => ({
        kind: 'others',
        id,
        recipe,
        decisions: [...decisions],
        measure,
      }));
      return 'others' in response ? response.others : [];
    },
    async keys(recipe, voice) {
      const response = await ask((id) => ({ kind: 'keys', id, recipe, voice }));
      return 'keys' in response ? response.keys : [];
    },
    stop: () => worker.terminate(),
  };
}
