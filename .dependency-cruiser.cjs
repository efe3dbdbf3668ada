/** Arrows go one way: web, server and cli → contract → core. Imports of types alone count as any other. */
const CODE = '\\.test(-helper)?\\.tsx?$';
const ROOMS = ['core', 'contract', 'drawing', 'server', 'web', 'cli', 'demo', 'e2e', 'scripts'];
const only = (from, allowed) => ({
  name: `${from}-only-to-${allowed.join('-') || 'itself'}`,
  severity: 'error',
  from: { path: `^${from}/`, pathNot: CODE },
  to: { path: `^(${ROOMS.join('|')})/`, pathNot: `^(${[from, ...allowed].join('|')})/` },
});

/** Floors of a building from the bottom up: nothing reaches to a floor above its own. */
const floors = (house, names) =>
  names.slice(0, -1).map((name, i) => ({
    name: `${house}-${name}-not-up`,
    severity: 'error',
    from: { path: `^${house}/${name}(/|\\.ts$)`, pathNot: CODE },
    to: { path: `^${house}/(${names.slice(i + 1).join('|')})(/|\\.ts$)` },
  }));

/** Bytes and tags of files: pure, and for the formats alone. */
const FORMAT_PACKAGES = 'node_modules/(fflate|saxes|midi-file)/';
/** How messages of other languages are read. */
const WORDS_PACKAGES = 'node_modules/(intl-messageformat|@formatjs)/';
const CORE = [
  'words',
  'random',
  'rhythm',
  'timing',
  'counting',
  'spoken',
  'exercises',
  'sound',
  'listening',
  'judging',
];
const WEB = [
  ...[
    'styles',
    'ui',
    'store',
    'words',
    'api',
    'domain',
    'files',
    'audio',
    'workers',
    'ruler',
    'leading',
    'strips',
    'take',
    'asking',
  ],
  ...['lesson', 'room', 'pages', 'app'],
];
const notTo = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: CODE },
  to: { path: to },
});

module.exports = {
  forbidden: [
    only('core', []),
    only('contract', ['core']),
    only('server', ['contract', 'core']),
    only('drawing', ['core']),
    only('web', ['contract', 'core', 'drawing']),
    only('cli', ['contract', 'core', 'drawing']),
    only('demo', ['core']),
    notTo('browser-tests-are-nobodys', `^(${ROOMS.filter((room) => room !== 'e2e').join('|')})/`, '^e2e/'),
    notTo('scripts-are-no-product', '^(core|contract|drawing|server|web|cli|demo)/', '^scripts/'),
    ...floors('core', [...CORE, 'leading', 'ear', 'records', 'formats', 'making', 'planning', 'sheets', 'wording']),
    ...floors('server', ['repository', 'services', 'routes']),
    notTo('routes-ask-services', '^server/routes/', '^server/repository/'),
    ...floors('web', WEB),
    // A folder without a floor would be outside the house.
    notTo('every-folder-has-a-floor', `^web/(?!(${WEB.join('|')})/)[^/]+/`, '.'),
    notTo('pages-know-no-other', '^web/pages/([^/]+)/', '^web/pages/(?!$1/)[^/]+/'),
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^core/', pathNot: CODE },
      to: { dependencyTypes: ['npm', 'npm-dev', 'core'], pathNot: [FORMAT_PACKAGES, WORDS_PACKAGES] },
    },
    notTo('packages-of-formats-are-theirs', '^core/(?!formats/)', FORMAT_PACKAGES),
    notTo('packages-of-words-are-theirs', '^core/(?!words/)', WORDS_PACKAGES),
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'no-orphans',
      severity: 'error',
      from: { orphan: true, pathNot: ['\\.d\\.ts$', '\\.test\\.tsx?$', 'config\\.ts$', '^scripts/'] },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.js', '.json'] },
  },
};
