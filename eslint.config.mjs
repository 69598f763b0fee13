import hooks from 'eslint-plugin-react-hooks';
import imports from 'eslint-plugin-simple-import-sort';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist', 'node_modules', '.data', 'test-results'] },
  ...tseslint.configs.recommended,
  {
    plugins: { imports },
    rules: {
      complexity: ['error', 25],
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-restricted-imports': ['error', { patterns: [{ regex: '^(\\.\\./){3}' }] }],
      // Packages, layers, folders beside, neighbours.
      'imports/imports': ['error', { groups: [['^\\u0000', '^node:', '^@?\\w', '^#', '^\\.\\.', '^\\.']] }],
    },
  },
  {
    files: ['{src,e2e,attacks}/**/*.{ts,tsx}'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  { files: ['src/**/*.{ts,tsx}'], ignores: ['**/*.test.ts'], rules: { 'max-params': ['error', 5] } },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'The world comes in as arguments.' },
        { object: 'Date', property: 'now', message: 'The world comes in as arguments.' },
      ],
      'no-restricted-imports': [
        'error',
        { patterns: [{ regex: '^([a-z@]|node:)', message: 'The core uses no package.' }, { regex: '^(\\.\\./){3}' }] },
      ],
    },
  },
  {
    // Listening needs a fast Fourier transform, and that one package.
    files: ['src/core/take/spectra.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            { regex: '^(?!fft\\.js$)([a-z@]|node:)', message: 'Of packages only fft.js.' },
            { regex: '^(\\.\\./){3}' },
          ],
        },
      ],
    },
  },
  { files: ['src/web/**/*.{ts,tsx}'], plugins: { 'react-hooks': hooks }, rules: hooks.configs.recommended.rules },
);
