import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
  preprocess: vitePreprocess(),
  kit: {
    // It is served to the house: compressing the engraver at every build takes longer than it ever saves.
    adapter: adapter({ precompress: false }),
    csp: {
      // Scripts are ours alone. Styles may stand in elements: the engraved pictures and the components set places and sizes there.
      directives: {
        'default-src': ['self'],
        'script-src': ['self', 'wasm-unsafe-eval'],
        // The sound library ticks in a worker that it writes itself; it can do no more than the page.
        'worker-src': ['self', 'blob:'],
        'style-src': ['self', 'unsafe-inline'],
        'img-src': ['self', 'data:', 'blob:'],
        'object-src': ['none'],
        'base-uri': ['none'],
        'form-action': ['self'],
        'frame-ancestors': ['none'],
      },
    },
    // hooks.server.ts compares hosts itself: the built server does not know its own scheme.
    csrf: { trustedOrigins: ['*'] },
    // Practice rooms alone have a worker; they register it themselves.
    serviceWorker: { register: false },
    alias: { $core: 'src/lib/core', $ui: 'src/lib/ui', $server: 'src/lib/server' },
  },
};
