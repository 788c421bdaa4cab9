const transformTo = (module) => ({
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      module: { type: module },
      jsc: {
        target: 'es2022',
        parser: { syntax: 'typescript', tsx: true },
        transform: { react: { runtime: 'automatic' } },
      },
    },
  ],
});

const project = (name, rest) => ({
  displayName: name,
  testMatch: [`<rootDir>/packages/${name}/src/**/*.test.ts?(x)`],
  setupFiles: ['<rootDir>/scripts/jestSetup.ts'],
  ...rest,
});

// Computing in the test runner's sandbox is some ten times slower while `Math` is looked up through it. Handing it in mends that,
// which only CommonJS modules allow.
const computing = { transform: transformTo('commonjs'), sandboxInjectedGlobals: ['Math', 'Float64Array'] };
// The embedded database is an ES module.
const esModules = { transform: transformTo('es6'), extensionsToTreatAsEsm: ['.ts', '.tsx'] };

export default {
  // Both cores of a small machine: left to itself the runner keeps one back.
  maxWorkers: 2,
  testTimeout: 60_000,
  projects: [
    ...['core', 'contracts', 'calc', 'web'].map((name) => project(name, computing)),
    project('server', esModules),
  ],
};
