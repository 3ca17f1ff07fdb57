// The path aliases of svelte.config.js, for dependency-cruiser, which does not read them there.
const { resolve } = require('node:path');

const at = (folder) => resolve(__dirname, '..', folder);

module.exports = {
  resolve: {
    alias: {
      $core: at('src/lib/core'),
      $ui: at('src/lib/ui'),
      $server: at('src/lib/server'),
      $lib: at('src/lib'),
    },
  },
};
