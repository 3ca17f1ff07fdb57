/**
 * What is kept of a source (summaries of pieces and versions) names the engine that made it. This test notices that the engine makes
 * something else of the demo pieces than it did: then raise ENGINE in contentKey.ts, and put the new fingerprint here.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { readScoreFile } from '$core/io/readScoreFile';
import { withParts } from '$core/players/parts';
import { realise } from '$core/version/realise';
import { DEFAULT_RECIPE } from '$core/version/recipe';
import { contentKey, ENGINE } from './contentKey';

it('makes of the demo pieces what it made when its number was given', () => {
  const made = readdirSync('demo-studio')
    .sort()
    .map((name) => {
      const score = withParts(readScoreFile(name, readFileSync(join('demo-studio', name))).score);
      return [2, 4].map((level) => {
        const { form, difficulty, key, goalTempo } = realise(score, { ...DEFAULT_RECIPE, level }, []);
        return [
          form.phrases,
          form.sections.map((s) => [s.label, s.from, s.to]),
          difficulty.map((d) => d.score),
          key,
          goalTempo,
        ];
      });
    });
  expect([ENGINE, contentKey(made)]).toEqual([15, '8wLuaTmt5a1BGh0GOtvwIW5kXa8']);
});
