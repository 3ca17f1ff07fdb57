/** The threads of the server's pool, as a bundle of their own beside the built server. */
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

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
  build: {
    ssr: 'src/lib/server/pool/worker.ts',
    outDir: 'build/worker',
    target: 'node20',
    chunkSizeWarningLimit: 9000,
  },
});
