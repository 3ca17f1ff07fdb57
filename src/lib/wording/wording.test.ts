import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { NOT_SAID } from './glossary';
import { wordsInCode, wordsInComponent } from './visible';

const FILES = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .map((f) => `src/${f}`)
  .filter((f) => /\.(ts|svelte)$/.test(f) && !/\.test\.ts$|\/test\/|\.d\.ts$|src\/lib\/wording\//.test(f));

/** Names that are not words: ids of limits in reports, what an option is called, headings that charts of others have. */
const EXEMPT: ReadonlySet<string> = new Set([
  'src/lib/core/version/check.ts',
  'src/lib/core/io/private/chart/head.ts',
]);
const NAMES = /--by SEMITONES/g;

describe('the language', () => {
  it('finds the words of a component, and not its names', () => {
    const texts = wordsInComponent(
      `<script>import x from 'a b c'; const t = 'Two words here'; const id = 'held-root';</script><p class="flex gap-2" title="A title">Plain text {open ? 'Shown now' : \`\${n} more notes\`}</p>`,
    ).map((v) => v.text);
    expect(texts).toEqual(
      expect.arrayContaining(['Two words here', 'A title', 'Plain text', 'Shown now', '… more notes']),
    );
    expect(texts).not.toContain('a b c');
    expect(texts).not.toContain('flex gap-2');
    expect(texts).not.toContain('held-root');
  });
  it('does not say what the glossary does not', () => {
    const said = FILES.flatMap((file) => {
      const source = readFileSync(file, 'utf8');
      const words = file.endsWith('.svelte')
        ? wordsInComponent(source)
        : file.endsWith('.ts')
          ? wordsInCode(source)
          : [];
      return (EXEMPT.has(file) ? [] : words).flatMap(({ text, line }) =>
        NOT_SAID.filter(({ found }) => found.test(text.replace(NAMES, ''))).map(
          ({ found, say }) => `${file}:${line} “${text}”: ${found.source} → ${say}`,
        ),
      );
    });
    expect(said).toEqual([]);
  });
});
