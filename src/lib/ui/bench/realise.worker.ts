/** Realises versions off the page's own thread. It is told the source once, then recipes and decisions. */
import { LEVELS, levelsSchema, type LevelContract } from '$core/arrange/levels';
import type { Score } from '$core/score/score';
import type { FingerReason } from '$core/fingering/explain';
import { rankKeys, type RankedKey, type VoiceRange } from '$core/keys/rank';
import { realise, type Version } from '$core/version/realise';
import { otherFingerings, whyFinger, type MeasureFingering } from '$core/version/why';
import { decisionsSchema, recipeSchema } from '$core/version/recipe';
import { z } from 'zod';

const requestSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('source'),
    source: z.custom<Score>((v) => typeof v === 'object' && v !== null),
    levels: levelsSchema,
  }),
  z.object({ kind: z.literal('realise'), id: z.number(), recipe: recipeSchema, decisions: decisionsSchema }),
  z.object({
    kind: z.literal('why'),
    id: z.number(),
    recipe: recipeSchema,
    decisions: decisionsSchema,
    note: z.string(),
  }),
  z.object({
    kind: z.literal('others'),
    id: z.number(),
    recipe: recipeSchema,
    decisions: decisionsSchema,
    measure: z.number(),
  }),
  z.object({
    kind: z.literal('keys'),
    id: z.number(),
    recipe: recipeSchema,
    voice: z.custom<VoiceRange>((v) => typeof v === 'object' && v !== null).nullable(),
  }),
]);

export type RealiseRequest = z.infer<typeof requestSchema>;
export type RealiseResponse =
  | { id: number; version: Version }
  | { id: number; why: FingerReason | null }
  | { id: number; others: MeasureFingering[] }
  | { id: number; keys: RankedKey[] }
  | { id: number; error: string };

let source: Score | undefined;
let levels: readonly LevelContract[] = LEVELS;
let last: { key: string; version: Version } | undefined;

function versionOf(
  recipe: z.infer<typeof recipeSchema>,
  decisions: z.infer<typeof decisionsSchema>,
): Version {
  if (!source) throw new Error('The piece has not arrived yet.');
  const key = JSON.stringify([recipe, decisions]);
  if (last?.key !== key) last = { key, version: realise(source, recipe, decisions, levels) };
  return last.version;
}

self.addEventListener('message', (event: MessageEvent<unknown>) => {
  const request = requestSchema.parse(event.data);
  if (request.kind === 'source') {
    source = request.source;
    levels = request.levels;
    last = undefined;
    return;
  }
  const { id, recipe } = request;
  let response: RealiseResponse;
  try {
    if (request.kind === 'keys') {
      if (!source) throw new Error('The piece has not arrived yet.');
      const keys = rankKeys(source, recipe, { voice: request.voice ?? undefined, levels });
      self.postMessage({ id, keys } satisfies RealiseResponse);
      return;
    }
    const { decisions } = request;
    const version = versionOf(recipe, decisions);
    if (request.kind === 'realise') response = { id, version };
    else if (request.kind === 'why')
      response = { id, why: whyFinger(version, recipe, decisions, request.note) ?? null };
    else response = { id, others: otherFingerings(version, recipe, decisions, request.measure) };
  } catch (error) {
    response = { id, error: error instanceof Error ? error.message : String(error) };
  }
  self.postMessage(response);
});
