import js from '@eslint/js';
import { defineConfig } from 'eslint/config';
import tseslint from 'typescript-eslint';

/** The rooms that stand side by side on one floor: none of them may import another. */
const rooms = ['crawl', 'browser', 'images', 'store', 'output'];

/** What each part of the house may not import. Imports run downward only: cli, tasks, rooms, core. */
const forbidden = {
  core: [...rooms, 'tasks', 'cli', 'demo'],
  ...Object.fromEntries(
    rooms.map((room) => [
      room,
      [...rooms.filter((other) => other !== room), 'tasks', 'cli', 'demo'],
    ]),
  ),
  tasks: ['cli'],
};

const importRule = (parts, ...more) => [
  'error',
  {
    patterns: [
      {
        regex: `^(\\.\\./)+(src/)?(${parts.join('|')})/`,
        message: 'Imports run downward only: cli, tasks, the rooms, core.',
      },
      ...more,
    ],
  },
];

/** core/ computes and nothing else: no I/O, no clock, no console, no packages but numeric ones. */
const standsAlone = {
  regex: '^(?!\\.{1,2}/|simple-statistics$|jstat$|pure-rand/)',
  message: 'core/ stands alone.',
};

const house = Object.entries(forbidden).map(([part, parts]) => ({
  files: [`src/${part}/**/*.ts`],
  rules: {
    'no-restricted-imports': importRule(parts, ...(part === 'core' ? [standsAlone] : [])),
  },
}));

const coreIsPure = {
  files: ['src/core/**/*.ts'],
  rules: {
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
  },
};

export default defineConfig(
  { ignores: ['dist/', 'brindle-bay-refit/', 'node_modules/', '.zealous-lynx/'] },
  js.configs.recommended,
  {
    files: ['**/*.ts'],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: { project: './tsconfig.check.json', tsconfigRootDir: import.meta.dirname },
    },
    rules: {
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      '@typescript-eslint/restrict-template-expressions': 'off',
      'no-console': 'error',
      'max-lines': ['error', { max: 300, skipBlankLines: true, skipComments: true }],
    },
  },
  ...house,
  coreIsPure,
  {
    files: ['**/*.js', '**/*.mjs'],
    languageOptions: {
      globals: {
        process: 'readonly',
        console: 'readonly',
        URL: 'readonly',
        Buffer: 'readonly',
        performance: 'readonly',
        setTimeout: 'readonly',
      },
    },
  },
);
