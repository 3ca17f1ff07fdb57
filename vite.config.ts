import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';
import { separateWasm } from './scripts/separateWasm.ts';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  worker: { format: 'es', plugins: () => [separateWasm()] },
  // Of these only what is used is loaded.
  ssr: { noExternal: ['zod', 'drizzle-orm'] },
  // On the server the engraver's WebAssembly is one large module, read once when it starts.
  build: { chunkSizeWarningLimit: 9000 },
  optimizeDeps: { exclude: ['verovio'] },
  test: {
    include: ['src/**/*.test.ts'],
    environment: 'node',
    // For what hangs, not for what is slow: a machine that others use as well may be six times as slow as a quiet one.
    testTimeout: 120_000,
    hookTimeout: 120_000,
    // A process for each file took a third of the time. What a test stubs it gives back; nothing else is shared that matters.
    isolate: false,
    setupFiles: ['src/lib/core/test/laws.setup.ts'],
  },
});
