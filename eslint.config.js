import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

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
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
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
  { files: ['packages/web/**/*.{ts,tsx}'], ...hooks.configs.flat.recommended },
);
