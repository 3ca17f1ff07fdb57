// The one-way rule: routes → ui, server, engrave → core. See docs/architecture.md.
/** The folders of the core from the ground up: each may know those before it. */
const FLOORS = [
  'theory',
  'score',
  'pipeline',
  'counting',
  'difficulty',
  'analysis',
  'transpose',
  'players',
  'performance',
  'pedal',
  'fingering',
  'hands',
  'arrange',
  'decisions',
  'compose',
  'io',
  'report',
  'version',
  'keys',
  'chords',
  'edits',
  'lessons',
  'takes',
];

const upwards = FLOORS.slice(0, -1).map((floor, i) => ({
  name: `core-${floor}-knows-only-what-is-below`,
  comment: 'No arrow of the core points up: see FLOORS.',
  severity: 'error',
  from: { path: `^src/lib/core/${floor}/`, pathNot: '\\.test\\.ts$' },
  to: { path: `^src/lib/core/(${FLOORS.slice(i + 1).join('|')})/` },
}));

/** @type {import('dependency-cruiser').IConfiguration} */
module.exports = {
  forbidden: [
    {
      name: 'core-stands-alone',
      comment: 'The core is music only: it must not know of screens, pages, files or databases.',
      severity: 'error',
      from: { path: '^src/lib/core/', pathNot: '\\.test\\.ts$' },
      to: {
        path: [
          '^src/(lib/(ui|server|engrave)|routes|cli)/',
          '^node_modules/(@sveltejs|svelte|bits-ui|drizzle-orm|better-sqlite3|verovio|vite|@playwright)(/|$)',
        ],
      },
    },
    ...upwards,
    {
      name: 'folders-of-the-core-have-a-floor',
      comment: 'A new folder is entered in FLOORS, where it belongs.',
      severity: 'error',
      from: {},
      to: { path: '^src/lib/core/[^/]+/', pathNot: `^src/lib/core/(${FLOORS.join('|')}|test)/` },
    },
    {
      name: 'private-in-the-core',
      comment: 'What lies in private/ or among the kinds of decisions is for its own folder alone.',
      severity: 'error',
      from: { path: '^src/lib/core/([^/]+)/' },
      to: {
        path: '^src/lib/core/([^/]+/private|decisions/kinds)/',
        pathNot: '^src/lib/core/$1/',
      },
    },
    {
      name: 'private-to-the-core',
      severity: 'error',
      from: { pathNot: '^src/lib/core/[^/]+/' },
      to: { path: '^src/lib/core/([^/]+/private|decisions/kinds)/' },
    },
    {
      name: 'core-has-no-node',
      comment: 'The core runs in a page and in a worker as well as on the server.',
      severity: 'error',
      from: { path: '^src/lib/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'ui-does-not-reach-the-server',
      severity: 'error',
      from: { path: '^src/lib/ui/' },
      to: { path: '^src/(lib/server|routes|cli)/' },
    },
    {
      name: 'engrave-knows-only-core',
      severity: 'error',
      from: { path: '^src/lib/engrave/' },
      to: { path: '^src/(lib/(ui|server)|routes|cli)/' },
    },
    {
      name: 'paper-knows-core-and-engraver',
      comment:
        'Paper is laid out where there are files; a page shows what comes of it and knows only its choices.',
      severity: 'error',
      from: { path: '^src/lib/paper/', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(lib/(ui|server)|routes|cli)/' },
    },
    {
      name: 'pages-know-only-the-choices-of-paper',
      severity: 'error',
      from: { path: '^src/(lib/(ui|core|engrave)|routes/.*\\.svelte)' },
      to: { path: '^src/lib/paper/', pathNot: '^src/lib/paper/choices\\.ts$' },
    },
    {
      name: 'server-knows-no-screen',
      severity: 'error',
      from: { path: '^src/lib/server/' },
      to: { path: '^src/(lib/ui|routes|cli)/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-unknown',
      severity: 'error',
      from: {},
      to: {
        couldNotResolve: true,
        pathNot: ['^\\$(app|env)/', '^\\$service-worker$', '^\\./\\$types', '\\?'],
      },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    webpackConfig: { fileName: 'scripts/aliases.cjs' },
    enhancedResolveOptions: {
      extensions: ['.ts', '.js', '.svelte', '.mjs', '.svelte.ts'],
      conditionNames: ['import', 'svelte', 'node', 'default', 'types'],
      exportsFields: ['exports'],
    },
  },
};
