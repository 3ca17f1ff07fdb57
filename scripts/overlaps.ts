/** Counts what runs into what on the score of every demo piece at every level, in every size: `npm run overlaps`. */
import { readdirSync, readFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { LEVELS } from '../src/lib/core/arrange/levels';
import { readScoreFile } from '../src/lib/core/io/readScoreFile';
import { withParts } from '../src/lib/core/players/parts';
import { recipeSchema } from '../src/lib/core/version/recipe';
import { choicesSchema, sourceOf } from '../src/lib/paper';
import { marksIn, overlapsIn } from '../src/lib/paper/overlaps';
import { frameHeight, frameWidth } from '../src/lib/paper/page';
import { scoreSheet } from '../src/lib/paper/sheets/score';

/** The demo pieces and the cabinet of odd files, or the folders that are named. */
const FOLDERS = process.argv.length > 2 ? process.argv.slice(2) : ['demo-studio', 'tests/music/cabinet'];
/** Sizes, styles and names of notes in which every version is looked at. */
const looks = [
  ['normal', 'solo', 'none'],
  ['large', 'solo', 'below'],
  ['very large', 'solo', 'heads'],
  ['normal', 'sing-along', 'none'],
  ['very large', 'sing-along', 'none'],
] as const;

let total = 0;
let looked = 0;
const files = FOLDERS.flatMap((folder) =>
  readdirSync(folder)
    .filter((f) => /\.(musicxml|xml|mxl|midi?|abc|pro|cho|txt)$/.test(f))
    .map((f) => join(folder, f)),
);
for (const file of files) {
  const { score } = readScoreFile(basename(file), readFileSync(file));
  for (const { level } of LEVELS)
    for (const [size, style, names] of looks) {
      const choices = choicesSchema.parse({ size, fingers: 'all', names });
      const source = sourceOf({
        recipe: recipeSchema.parse({ level, style }),
        decisions: [],
        levels: LEVELS,
        score: withParts(score),
        choices,
      });
      const frame = { width: frameWidth('a4'), height: frameHeight('a4') };
      const blocks = (await scoreSheet(source, frame)).filter((b) => b.isSystem);
      const byKind = new Map<string, number>();
      for (const block of blocks) {
        const marks = marksIn(block.drawn);
        looked += marks.length;
        for (const { kinds } of overlapsIn(marks)) {
          const name = [...kinds].sort().join('-');
          byKind.set(name, (byKind.get(name) ?? 0) + 1);
        }
      }
      const count = [...byKind.values()].reduce((a, b) => a + b, 0);
      total += count;
      if (count > 0)
        console.log(
          `${file} level ${level} ${size} ${style}: ${[...byKind].map(([k, n]) => `${k} ${n}`).join(', ')}`,
        );
    }
}
console.log(`${looked} boxes looked at, ${total} run into each other.`);
process.exitCode = total > 0 ? 1 : 0;
