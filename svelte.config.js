import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    adapter: adapter(),
    // hooks.server.ts compares hosts itself: the built server does not know its own scheme.
    csrf: { trustedOrigins: ['*'] },
    alias: { $core: 'src/lib/core', $ui: 'src/lib/ui', $server: 'src/lib/server' },
  },
};
