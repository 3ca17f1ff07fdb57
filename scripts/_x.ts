import { readdirSync, readFileSync } from 'node:fs';
import { readScoreFile } from '../src/lib/core/io/readScoreFile';
import { realise } from '../src/lib/core/version/realise';
import { recipeSchema } from '../src/lib/core/version/recipe';
import { RULES, readVersion } from '../tests/music/rules';
const files = [
  ...readdirSync('tests/music')
    .filter((f) => /abc|txt|xml$/.test(f))
    .map((f) => 'tests/music/' + f),
  ...readdirSync('demo-studio').map((f) => 'demo-studio/' + f),
  ...(process.env.MORE ? readdirSync(process.env.MORE).map((f) => process.env.MORE + '/' + f) : []),
].filter((f) => !process.argv[2] || f.includes(process.argv[2]));
const counts: Record<string, number[]> = {};
const examples: Record<string, string[]> = {};
for (const f of files) {
  let score;
  try {
    score = readScoreFile(f, new Uint8Array(readFileSync(f))).score;
  } catch (e) {
    console.log(f, (e as Error).message);
    continue;
  }
  for (let level = 1; level <= 6; level++) {
    const v = realise(score, recipeSchema.parse({ level }), []);
    const r = readVersion(v, level);
    for (const [name, rule] of Object.entries(RULES)) {
      const found = rule(r);
      (counts[name] ??= [0, 0, 0, 0, 0, 0])[level - 1]! += found.length;
      if (found.length)
        (examples[name] ??= []).push(
          `${f.split('/').pop()} L${level}: ${found.slice(0, 4).join('; ')}${found.length > 4 ? ` … ${found.length}` : ''}`,
        );
    }
  }
}
for (const [name, c] of Object.entries(counts)) {
  console.log(c.join(' ').padEnd(24), name);
  for (const e of (examples[name] ?? []).slice(0, Number(process.env.N ?? 6))) console.log('      ', e);
}
