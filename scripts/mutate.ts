/**
 * `npm run mutate`: changes one rule at a time and runs the tests that should notice. Prints what was not noticed, and the share that
 * was. `-- PART` takes only mutations of files with PART in their name. Not part of ./verify: it takes a quarter of an hour.
 */
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { MUTATIONS, type Mutation } from './mutations';

/** Nine in ten are to be noticed. */
const GOAL = 0.9;

const wanted = process.argv[2] ?? '';
const chosen = MUTATIONS.filter((m) => m.file.includes(wanted));

/** Tests lie beside what they test; what is private is tested with its whole folder. */
const testsOf = ({ file }: Mutation): string =>
  file.includes('/private/')
    ? file.slice(0, file.indexOf('/private/') + 1)
    : file.slice(0, file.lastIndexOf('/') + 1);

function noticed(mutation: Mutation): boolean {
  const before = readFileSync(mutation.file, 'utf8');
  const places = before.split(mutation.find).length - 1;
  if (places !== 1) throw new Error(`“${mutation.find}” stands ${places} times in ${mutation.file}.`);
  try {
    writeFileSync(
      mutation.file,
      before.replace(mutation.find, () => mutation.replace),
    );
    const run = spawnSync('npx', ['vitest', 'run', '--bail', '1', testsOf(mutation)], { encoding: 'utf8' });
    return run.status !== 0;
  } finally {
    writeFileSync(mutation.file, before);
  }
}

let caught = 0;
for (const [i, mutation] of chosen.entries()) {
  const was = noticed(mutation);
  if (was) caught += 1;
  else console.log(`NOT NOTICED ${mutation.file}: ${mutation.find} → ${mutation.replace}`);
  process.stderr.write(`${i + 1} of ${chosen.length}\r`);
}
console.log(
  `${caught} of ${chosen.length} noticed (${Math.round((100 * caught) / chosen.length)} %, to be ${100 * GOAL} %)`,
);
process.exitCode = caught / chosen.length >= GOAL ? 0 : 1;
