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
  { files: ['packages/web/**/*.{ts,tsx}'], ...hooks.configs.flat.recommended },
);
