import js from '@eslint/js';
import { defineConfig } from 'eslint/config';
import tseslint from 'typescript-eslint';
import { floors } from './scripts/floors.mjs';

/** @param names of rooms that may not be imported */
function importRule(names, more) {
  return [
    'error',
    {
      patterns: [
        {
          regex: `^(\\.\\./)+(src/)?(${names.join('|')})/`,
          message: 'Imports go downward only: see scripts/floors.mjs.',
        },
        ...more,
      ],
    },
  ];
}

/** core/ computes and nothing else: no I/O, no clock, no console, no packages but numeric ones, parsers and matchers. */
const standsAlone = {
  regex: '^(?!\\.{1,2}/|simple-statistics$|jstat$|pure-rand/|css-what$|css-select$|domhandler$)',
  message: 'core/ stands alone.',
};

/** What each room may not import: everything on its own floor and above. */
const house = floors.flatMap((rooms, floor) =>
  rooms.map((room) => {
    const above = floors.slice(floor).flat();
    // The demo's site belongs to the task that runs it.
    if (!['tasks', 'cli'].includes(room)) above.push('demo');
    // A room of core/ is imported by its own name from its neighbours, and by core/ and its name from elsewhere.
    const names = above
      .filter((other) => other !== room)
      .map((other) => other.replace(/^core\//, '(?:core/)?'));
    return {
      files: [`src/${room}/**/*.ts`],
      rules: {
        'no-restricted-imports': importRule(names, room.startsWith('core/') ? [standsAlone] : []),
      },
    };
  }),
);

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
  { ignores: ['dist/', 'brindle-bay-refit/', 'node_modules/', '.zealous-lynx/', 'coverage/'] },
  js.configs.recommended,
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [tseslint.configs.recommendedTypeChecked],
    languageOptions: {
      parserOptions: {
        project: ['./tsconfig.check.json', './report-app/tsconfig.json'],
        tsconfigRootDir: import.meta.dirname,
      },
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
