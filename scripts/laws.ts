/** Tries every law of the core with examples that no run has seen yet: `npm run laws -- 20` does so for twenty seeds. */
import { execFileSync, spawnSync } from 'node:child_process';

const rounds = Number(process.argv[2] ?? 10);
const files = execFileSync('git', ['grep', '-l', "from 'fast-check'", '--', 'src/**/*.test.ts'], {
  encoding: 'utf8',
})
  .trim()
  .split('\n');

const broken: number[] = [];
for (let round = 0; round < rounds; round++) {
  const seed = Math.floor(Math.random() * 2 ** 31);
  const run = spawnSync('npx', ['vitest', 'run', '--reporter', 'dot', ...files], {
    env: { ...process.env, KEYPATH_SEED: String(seed) },
    encoding: 'utf8',
  });
  console.log(`${round + 1} of ${rounds}, seed ${seed}: ${run.status === 0 ? 'hold' : 'broken'}`);
  if (run.status === 0) continue;
  broken.push(seed);
  console.log(run.stdout + run.stderr);
}
console.log(broken.length === 0 ? 'All laws hold.' : `Broken with the seeds ${broken.join(', ')}.`);
process.exitCode = broken.length === 0 ? 0 : 1;
