const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
    {
      module: { type: 'es6' },
      jsc: {
        target: 'es2022',
        parser: { syntax: 'typescript', tsx: true },
        transform: { react: { runtime: 'automatic' } },
      },
    },
  ],
};

const project = (name) => ({
  displayName: name,
  testMatch: [`<rootDir>/packages/${name}/src/**/*.test.ts?(x)`],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  setupFiles: ['<rootDir>/scripts/jestSetup.mjs'],
  transform,
});

export default { testTimeout: 60_000, projects: ['core', 'contracts', 'calc', 'server', 'web'].map(project) };
