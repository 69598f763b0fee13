import hooks from 'eslint-plugin-react-hooks';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist', 'node_modules', '.data', 'test-results'] },
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-restricted-imports': ['error', { patterns: [{ regex: '^(\\.\\./){3}' }] }],
    },
  },
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
  { files: ['src/web/**/*.tsx'], plugins: { 'react-hooks': hooks }, rules: hooks.configs.recommended.rules },
);
