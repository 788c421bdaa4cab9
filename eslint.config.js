import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

const OF_A_SERVER = ['process', 'Buffer', 'require', '__dirname', '__filename', 'global'];
const OF_A_BROWSER = ['window', 'document', 'localStorage', 'sessionStorage', 'self', 'location'];

export default tseslint.config(
  {
    ignores: [
      '**/dist/**',
      '**/node_modules/**',
      '.cache/**',
      '.data/**',
      'packages/server/migrations/**',
      'test-results/**',
      '.dependency-cruiser.cjs',
    ],
  },
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        // One project for all: what packages share is read once.
        project: 'tsconfig.all.json',
        tsconfigRootDir: import.meta.dirname,
      },
    },
  },
  { files: ['**/*.{js,mjs,cjs}', 'scripts/**'], ...tseslint.configs.disableTypeChecked },
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      // What is asked to promise may have the answer at hand.
      '@typescript-eslint/require-await': 'off',
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
      'no-console': 'off',
      'prefer-const': 'error',
    },
  },
  {
    // Core is pure: the same input gives the same output on every machine and at every moment.
    files: ['packages/core/src/**/*.ts'],
    ignores: ['**/*.test.ts', '**/testdata/**'],
    rules: {
      'no-restricted-globals': ['error', ...['Date', 'fetch', 'process', 'globalThis', 'window', 'performance']],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random' }],
    },
  },
  // All packages are compiled as one, with the names of browser and server: what runs in the one has none of the other's.
  {
    files: ['packages/web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.{ts,tsx}', '**/testing/**'],
    rules: { 'no-restricted-globals': ['error', ...OF_A_SERVER] },
  },
  {
    files: ['packages/server/src/**/*.ts', 'packages/calc/src/**/*.ts'],
    rules: { 'no-restricted-globals': ['error', ...OF_A_BROWSER] },
  },
  {
    files: ['packages/contracts/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'no-restricted-globals': ['error', ...OF_A_SERVER, ...OF_A_BROWSER] },
  },
  {
    // What a server answers is read in tests as it comes; its schemas are held to it elsewhere.
    files: ['**/*.test.{ts,tsx}', '**/testing/**', '**/testdata/**', 'packages/e2e/**'],
    rules: Object.fromEntries(
      ['member-access', 'argument', 'assignment', 'return', 'call'].map((what) => [
        `@typescript-eslint/no-unsafe-${what}`,
        'off',
      ]),
    ),
  },
  { files: ['packages/web/**/*.{ts,tsx}'], ...hooks.configs.flat.recommended },
);
