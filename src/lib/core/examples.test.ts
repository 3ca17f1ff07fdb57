/** The examples in the README of each folder of the core are run: an expression, and behind the arrow what it gives as JSON. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { formOf } from './analysis/form';
import { chordsOf } from './analysis/harmony';
import { writeMusicXml } from './io/musicxml/write';
import type { Score } from './score/score';
import { perform } from './performance/perform';
import { soundingNotes } from './score/query';
import { scoreFrom } from './test/shorthand';
import { documentOf } from './version/document';
import { DEFAULT_RECIPE } from './version/recipe';

const CORE = 'src/lib/core';
const song = scoreFrom({
  key: 'C',
  time: { beats: 4, beatType: 4 },
  right: 'C4:1 D4:1 E4:2 | F4:2 A4:2 | G4:1 F4:1 D4:2 | C4:4',
  left: 'C3:4 | F2:4 | G2:4 | C3:4',
  chords: 'C | F | G | C',
});
/** What examples may speak of besides their own folder. */
const GIVEN = {
  song,
  measure: song.measures[0],
  recipe: DEFAULT_RECIPE,
  document: documentOf(DEFAULT_RECIPE),
  C: { fifths: 0, mode: 'major' },
  formOf,
  chordsOf,
  soundingNotes,
  perform,
  bytesOf: (score: Score) => new TextEncoder().encode(writeMusicXml(score)),
};

const folders = readdirSync(CORE, { withFileTypes: true })
  .filter((entry) => entry.isDirectory() && entry.name !== 'test')
  .map((entry) => entry.name);

describe.each(folders)('%s', (folder) => {
  const examples = [
    ...readFileSync(join(CORE, folder, 'README.md'), 'utf8').matchAll(/^(.+); \/\/ => (.+)$/gm),
  ].map(([, expression, result]) => [expression!, result!] as const);
  const doors = readdirSync(join(CORE, folder)).filter(
    (name) => name.endsWith('.ts') && !name.endsWith('.test.ts'),
  );
  it('shows what it does', () => expect(examples.length).toBeGreaterThan(0));
  it.each(examples)('%s', async (expression, result) => {
    const own = await Promise.all(
      doors.map((name) => import(`./${folder}/${name.slice(0, -3)}.ts`) as Promise<Record<string, unknown>>),
    );
    const scope: Record<string, unknown> = Object.assign({}, GIVEN, ...own);
    const run = new Function(...Object.keys(scope), `return ${expression}`) as (
      ...given: unknown[]
    ) => unknown;
    expect(JSON.parse(JSON.stringify(run(...Object.values(scope))))).toEqual(JSON.parse(result));
  });
});
