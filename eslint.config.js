import js from '@eslint/js';
import { importX } from 'eslint-plugin-import-x';
import tseslint from 'typescript-eslint';

/** The rooms that stand side by side on one floor: none of them may import another. */
const rooms = ['crawl', 'browser', 'images', 'store', 'output'];

/** Imports run downward only: cli -> tasks -> rooms -> core. */
const zones = [
  { target: './src/core', from: './src', except: ['./core'] },
  ...rooms.map((room) => ({
    target: `./src/${room}`,
    from: './src',
    except: ['./core', `./${room}`],
  })),
  { target: './src/tasks', from: './src/cli' },
  { target: './demo', from: './src/cli' },
  ...['core', ...rooms].map((room) => ({ target: `./src/${room}`, from: './demo' })),
].map((zone) => ({ ...zone, message: 'Imports run downward only: cli, tasks, the rooms, core.' }));

/** core/ computes and nothing else: no I/O, no clock, no console, no packages but numeric ones. */
const coreIsPure = {
  files: ['src/core/**/*.ts'],
  rules: {
    'no-console': 'error',
    'no-restricted-globals': [
      'error',
      'process',
      'fetch',
      'setTimeout',
      'setInterval',
      'performance',
    ],
    'no-restricted-properties': [
      'error',
      { object: 'Date', property: 'now', message: 'Pass the time in.' },
      { object: 'Math', property: 'random', message: 'Pass the randomness in.' },
    ],
    'no-restricted-imports': [
      'error',
      {
        patterns: [{ regex: '^(?!\\.{1,2}/|simple-statistics$)', message: 'core/ stands alone.' }],
      },
    ],
  },
};

export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', '.zealous-lynx/'] },
  js.configs.recommended,
  {
    files: ['**/*.ts'],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: { project: './tsconfig.check.json', tsconfigRootDir: import.meta.dirname },
    },
    plugins: { 'import-x': importX },
    settings: { 'import-x/resolver': { typescript: false, node: { extensions: ['.ts', '.js'] } } },
    rules: {
      'import-x/no-restricted-paths': ['error', { zones }],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_' }],
      '@typescript-eslint/restrict-template-expressions': 'off',
      'no-console': 'error',
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
    },
  },
  coreIsPure,
  {
    files: ['**/*.js', '**/*.mjs'],
    languageOptions: {
      globals: { process: 'readonly', console: 'readonly', URL: 'readonly', Buffer: 'readonly' },
    },
  },
);
