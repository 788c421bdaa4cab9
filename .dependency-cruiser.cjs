/** Dependencies point one way: web -> contracts -> core, server -> contracts -> core; nothing points back. */
const only = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.tsx?$|/testdata/' },
  to,
});

/** Who may import whom among the rooms of core, types too; whatever is not named here may not. */
const ROOMS = {
  numeric: [],
  units: [],
  colour: ['numeric'],
  optics: ['colour', 'numeric'],
  finishes: [],
  materials: ['colour', 'finishes', 'optics'],
  products: ['finishes', 'materials'],
  mixing: ['colour', 'finishes', 'materials', 'numeric', 'optics', 'products'],
  matching: ['colour', 'finishes', 'materials', 'numeric', 'optics'],
  formats: ['colour', 'matching', 'materials', 'products'],
  letdown: ['colour', 'finishes', 'matching', 'materials', 'numeric', 'optics'],
  looks: ['colour', 'finishes', 'matching', 'materials', 'optics', 'spraying'],
  spraying: ['colour', 'finishes', 'materials', 'numeric', 'products'],
  booth: ['numeric'],
  jobs: [
    ...['booth', 'colour', 'finishes', 'formats', 'letdown', 'matching', 'materials', 'mixing'],
    ...['products', 'spraying'],
  ],
  faults: ['jobs', 'materials', 'products', 'spraying'],
  bank: ['colour'],
  recovery: ['colour', 'faults', 'finishes', 'jobs', 'letdown', 'numeric', 'spraying'],
  study: ['colour', 'finishes', 'letdown', 'matching', 'materials', 'numeric', 'optics', 'recovery'],
  formulate: ['colour', 'finishes', 'matching', 'materials', 'numeric', 'optics'],
  devices: ['formats', 'numeric'],
  practice: [
    ...[
      'colour',
      'finishes',
      'letdown',
      'matching',
      'materials',
      'mixing',
      'numeric',
      'optics',
      'products',
      'spraying',
    ],
  ],
  tryOut: [
    'colour',
    'devices',
    'finishes',
    'formats',
    'jobs',
    'letdown',
    'matching',
    'materials',
    'numeric',
    'optics',
    'spraying',
    'study',
  ],
  demo: ['colour', 'finishes', 'formats', 'matching', 'materials', 'numeric', 'optics'],
};
const rooms = Object.entries(ROOMS).map(([room, may]) =>
  only(`core-room-${room}`, `^packages/core/src/${room}/`, {
    path: '^packages/core/src/',
    pathNot: [`^packages/core/src/(${[room, ...may].join('|')})/`, '^packages/core/src/errors\\.ts$'],
  }),
);

module.exports = {
  forbidden: [
    ...rooms,
    only('core-stands-alone', '^packages/core/src', { path: '^packages/(?!core)' }),
    only('core-is-pure', '^packages/core/src', { dependencyTypes: ['core'] }),
    only('contracts-on-core-only', '^packages/contracts/src', { path: '^packages/(?!contracts|core)' }),
    only('server-not-on-web', '^packages/server/src', { path: '^packages/(?!server|contracts|core)' }),
    only('web-not-on-server', '^packages/web/src', { path: '^packages/(?!web|contracts|core)' }),
    only('calc-on-contracts-and-core', '^packages/calc/src', { path: '^packages/(?!calc|contracts|core)' }),
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(dist|node_modules|migrations)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'default'],
      extensions: ['.ts', '.tsx', '.js', '.mjs'],
    },
  },
};
