/** docs/adding.md can be followed: every file that it names is there, and its worked examples stand in them. */
import { existsSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const page = readFileSync('docs/adding.md', 'utf8');
const sections = page
  .split(/^## /m)
  .slice(1)
  .map((text) => ({
    title: text.slice(0, text.indexOf('\n')),
    example: /Worked example: `([^`]+)`/.exec(text)?.[1],
    files: [...text.matchAll(/`((?:src|scripts|drizzle|docs)\/[^`\s]+\.\w+)`/g)].map(([, file]) => file!),
  }));

describe.each(sections)('$title', ({ example, files }) => {
  it('names files that are there', () => {
    expect(files.length).toBeGreaterThan(0);
    expect(files.filter((file) => !existsSync(file))).toEqual([]);
  });
  it.runIf(example)('has its worked example in the files', () => {
    const without = files.filter((file) => !readFileSync(file, 'utf8').includes(example!));
    // One file at the most is where the example is used under another name.
    expect(without.length).toBeLessThanOrEqual(1);
  });
});
