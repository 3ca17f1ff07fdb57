/** What stands beside the built server: how it is started, and the threads of its pool. */
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';
import { separateWasm } from './scripts/separateWasm.ts';

const from = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  resolve: {
    alias: {
      $core: from('src/lib/core'),
      $server: from('src/lib/server'),
      $ui: from('src/lib/ui'),
      $lib: from('src/lib'),
    },
  },
  publicDir: false,
  // What would otherwise be loaded whole in every thread: only what is used of them is.
  ssr: {
    noExternal: ['verovio', 'zod', 'drizzle-orm', 'mutative', 'lru-cache', 'fflate', 'svgpath', 'saxes'],
  },
  plugins: [
    separateWasm('server'),
    {
      name: 'start-by-main',
      // `node build` starts our server rather than the adapter's own, which would listen to the whole network.
      closeBundle: () => writeFileSync(from('build/index.js'), "import './worker/main.js';\n"),
    },
  ],
  build: {
    ssr: true,
    // The engraver's bytes lie beside the script.
    ssrEmitAssets: true,
    rolldownOptions: {
      input: { worker: from('src/lib/server/pool/worker.ts'), main: from('src/lib/server/main.ts') },
    },
    outDir: 'build/worker',
    target: 'node20',
    chunkSizeWarningLimit: 9000,
  },
});
