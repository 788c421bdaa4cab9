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
  // Copies of core lie there while mutants are tried.
  modulePathIgnorePatterns: ['<rootDir>/\\.cache'],
  testMatch: [`<rootDir>/packages/${name}/src/**/*.test.ts`],
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
  testTimeout: 120_000,
  projects: [
    ...['core', 'contracts', 'calc', 'web'].map((name) => project(name, computing)),
    project('server', esModules),
    // Components and hooks, drawn in a page.
    {
      ...project('page', computing),
      testMatch: ['<rootDir>/packages/web/src/**/*.test.tsx'],
      // What has no other form than an ES module for browsers.
      transform: { ...computing.transform, '/nanoid/.+\\.js$': Object.values(computing.transform)[0] },
      transformIgnorePatterns: ['/node_modules/(?!nanoid/)'],
      testEnvironment: '<rootDir>/scripts/jestPage.mjs',
      setupFilesAfterEnv: ['<rootDir>/scripts/jestPageSetup.ts'],
      globalSetup: '<rootDir>/scripts/jestServer.mjs',
      globalTeardown: '<rootDir>/scripts/jestServerStop.mjs',
      // Computed on the test's own thread; pictures and fonts are not looked at.
      moduleNameMapper: {
        '/startWorker$': '<rootDir>/packages/web/src/testing/startWorker.ts',
        '\\.(css|svg|png|woff2?)$': '<rootDir>/packages/web/src/testing/asset.ts',
      },
    },
  ],
};
