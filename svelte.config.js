import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    // It is served to the house: compressing the engraver at every build takes longer than it ever saves.
    adapter: adapter({ precompress: false }),
    // hooks.server.ts compares hosts itself: the built server does not know its own scheme.
    csrf: { trustedOrigins: ['*'] },
    alias: { $core: 'src/lib/core', $ui: 'src/lib/ui', $server: 'src/lib/server' },
  },
};
