import { describe, expect, it } from 'vitest';
import { allCommands } from '../../src/cli/commands/index.js';
import { callOf, optionsOf } from '../../src/cli/command.js';
import {
  oneOf,
  someOf,
  filePath,
  wholeNumber,
  yesOrNo,
  textList,
} from '../../src/cli/options/checks.js';
import {
  choicesOf,
  flagOf,
  kindOf,
  option,
  usualOf,
  variableOf,
} from '../../src/cli/options/option.js';

describe('an option', () => {
  it.each([
    ['a number', wholeNumber(1, 9).default(5), 'value', '5', []],
    ['a switch that is off', yesOrNo().default(false), 'switch', undefined, []],
    ['a switch that is on', yesOrNo().default(true), 'switch', 'on', []],
    ['a word', oneOf(['host', 'domain']).default('host'), 'value', 'host', ['host', 'domain']],
    ['words', someOf(['html', 'image']), 'values', undefined, ['html', 'image']],
    ['texts', textList('a key').default(['keep']), 'values', 'keep', []],
    ['a file', filePath(), 'value', undefined, []],
  ] as const)('that is %s follows from its check', (_what, check, kind, usual, choices) => {
    const declared = option('does something', check as never);
    expect(kindOf(declared)).toBe(kind);
    expect(usualOf(declared)).toBe(usual);
    expect(choicesOf(declared)).toEqual(choices);
  });

  it('has one name in each place', () => {
    expect([flagOf('mapHost'), variableOf('mapHost')]).toEqual([
      'map-host',
      'ZEALOUS_LYNX_MAP_HOST',
    ]);
  });

  it('says in one line what it does, beginning with a capital letter and ending without a full stop', () => {
    for (const command of allCommands)
      for (const [name, { describe: words }] of Object.entries(optionsOf(command)))
        expect([command.name, name, words]).toEqual([
          command.name,
          name,
          expect.stringMatching(/^[A-Za-z][^\n]*[^.\n]$/) as string,
        ]);
  });
});

describe('the call of a command', () => {
  it('says what must be given, what may be, and what may be given several times', () => {
    const calls = Object.fromEntries(allCommands.map((command) => [command.name, callOf(command)]));
    expect(calls).toMatchObject({
      survey: 'survey [start..]',
      explain: 'explain <what>',
      compare: 'compare <before> <after>',
      surveys: 'surveys [action] [survey] [name]',
      completion: 'completion <shell>',
    });
  });
});
