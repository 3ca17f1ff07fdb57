import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  worker: { format: 'es' },
  // The engraver's WebAssembly is one large module that is only ever loaded inside a worker.
  build: { chunkSizeWarningLimit: 9000 },
  optimizeDeps: { exclude: ['verovio'] },
  test: { include: ['src/**/*.test.ts'], environment: 'node' },
});
