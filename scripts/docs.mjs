// Writes the parts of the manual that follow from declarations in the code: the options in docs/settings.md, and
// docs/findings.md. With --check it only says whether they are current. The program must have been built.
import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { allCommands } from '../dist/src/cli/commands/index.js';
import {
  choicesOf,
  flagOf,
  kindOf,
  notesOf,
  usualOf,
  variableOf,
} from '../dist/src/cli/options/option.js';
import { commonOptions } from '../dist/src/cli/options/shared.js';
import { findingKinds } from '../dist/src/core/findings/index.js';

const check = process.argv.includes('--check');
const at = (path) => fileURLToPath(new URL(`../${path}`, import.meta.url));

const settings = readFileSync(at('docs/settings.md'), 'utf8');
const [begin, end] = ['<!-- options: made by npm run docs -->', '<!-- end of options -->'];
const [before, rest] = settings.split(begin);
const after = rest.split(end)[1];
keep('docs/settings.md', `${before}${begin}\n\n${optionTables()}\n\n${end}${after}`);
keep('docs/findings.md', findings());

function keep(path, text) {
  const current = (() => {
    try {
      return readFileSync(at(path), 'utf8');
    } catch {
      return '';
    }
  })();
  if (current === text) return;
  if (!check) return writeFileSync(at(path), text);
  process.stderr.write(`${path} is not current: run npm run docs\n`);
  process.exitCode = 1;
}

function optionTables() {
  const common = ['## Options of every command', '', table(commonOptions)].join('\n');
  const own = allCommands
    .filter(({ options }) => Object.keys(options).length > 0)
    .map(({ name, describe, options }) =>
      [`## Options of \`${name}\``, '', `${describe}.`, '', table(options)].join('\n'),
    );
  return [common, ...own].join('\n\n');
}

function table(options) {
  const rows = Object.entries(options).map(([name, declared]) => {
    const many = kindOf(declared) === 'values' ? ' (several)' : '';
    const choices = choicesOf(declared);
    const allowed =
      choices.length > 0
        ? choices.map((word) => `\`${word}\``).join(', ')
        : kindOf(declared) === 'switch'
          ? 'true, false'
          : (notesOf(declared).allowed?.() ?? 'text');
    return `| \`--${flagOf(name)}\`${many} | \`${variableOf(name)}\` | \`${name}\` | ${cell(usualIn(name, declared))} | ${cell(allowed)} | ${cell(declared.describe)} |`;
  });
  return [
    '| flag | variable | config | default | allowed | what it does |',
    '| --- | --- | --- | --- | --- | --- |',
    ...rows,
  ].join('\n');
}

/** The default, unless it depends on the machine. */
function usualIn(name, declared) {
  return name === 'tabs' ? 'two per core, as memory allows' : (usualOf(declared) ?? '');
}

function cell(text) {
  return text.replaceAll('|', '\\|').replaceAll('<', '\\<');
}

function findings() {
  const titles = {
    image: 'Image files',
    page: 'Pages',
    site: 'Files besides images',
    load: 'Loads',
  };
  const parts = Object.entries(findingKinds).map(([about, kinds]) =>
    [
      `## ${titles[about]}`,
      '',
      '| id | what | who fixes it | how |',
      '| --- | --- | --- | --- |',
      ...kinds.map(
        ({ id, title, doer, fix }) =>
          `| \`${id}\` | ${cell(title)} | ${doer ?? '–'} | ${cell(fix)} |`,
      ),
    ].join('\n'),
  );
  return (
    [
      '# Findings',
      'What the program points at besides waste: of image files, pages and other files in `rank` and `explain`, of loads in\n`clock`. In JSON a finding has its `id`, a `message` in words, and the evidence in `data`. Who fixes it decides under whom\nit stands in the work list.',
      ...parts,
      '',
    ]
      .join('\n\n')
      .trimEnd() + '\n'
  );
}
