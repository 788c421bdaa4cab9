/** Dependencies point one way: web -> contracts -> core, server -> contracts -> core; nothing points back. */
const only = (name, from, to) => ({
  name,
  severity: 'error',
  from: { path: from, pathNot: '\\.test\\.tsx?$|/testdata/' },
  to,
});

module.exports = {
  forbidden: [
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
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
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
