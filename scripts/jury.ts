/** `npm run jury`: what a teacher expects of the pieces in tests/music, and what is found. `npm run jury -- NAME` for some of them. */
import { judge } from '../tests/music/judge';

const verdicts = judge('tests/music', process.argv[2]);
const WIDTH = 96;
for (const { piece, expects, found } of verdicts) {
  const what = expects.length > WIDTH ? `${expects.slice(0, WIDTH - 1)}…` : expects;
  console.log(
    `${found === undefined ? 'yes' : 'NO '}  ${piece.padEnd(22)} ${what}${found === undefined ? '' : `\n       found: ${found}`}`,
  );
}
const kinds = [...new Set(verdicts.map((v) => v.kind))].sort();
console.log('');
for (const kind of kinds) {
  const own = verdicts.filter((v) => v.kind === kind);
  const pieces = new Set(own.map((v) => v.piece)).size;
  console.log(
    `${kind.padEnd(26)} ${String(own.filter((v) => v.found === undefined).length).padStart(3)} of ${String(own.length).padStart(3)}, ${pieces} ${pieces === 1 ? 'piece' : 'pieces'}`,
  );
}
const right = verdicts.filter((v) => v.found === undefined).length;
console.log(
  `\n${right} of ${verdicts.length} expectations of ${new Set(verdicts.map((v) => v.piece)).size} pieces are met.`,
);
if (right < verdicts.length) process.exitCode = 1;
