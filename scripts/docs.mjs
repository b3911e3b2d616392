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
import { siteTopics } from '../dist/src/core/findings/site/index.js';

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
  const about = {
    image: 'Image files',
    page: 'Weight of pages',
    site: {
      text: 'Texts on the wire',
      use: 'What is not used',
      order: 'Number and order of files',
      caching: 'Caching',
      connection: 'Servers and connections',
      services: 'Third parties and leftovers',
      thread: 'Main thread and layout',
      fonts: 'Fonts',
      video: 'Video and animation',
    },
    load: 'Loads',
  };
  const chapters = [
    [about.image, findingKinds.image],
    [about.page, findingKinds.page],
    ...Object.entries(siteTopics).map(([topic, kinds]) => [about.site[topic], kinds]),
    [about.load, findingKinds.load],
  ];
  const story = ({ id, title, doer, fix, docs }) =>
    [
      `### \`${id}\`: ${title}`,
      `${docs.meaning} ${docs.why}`,
      [
        `- **Computed:** ${docs.computed}`,
        `- **Fix** (${doer ?? 'nobody has to act'}): ${fix}`,
        `- **Ignore it:** ${docs.ignore}`,
      ].join('\n'),
    ].join('\n\n');
  return `${[
    '# Findings',
    'What the program points at besides waste. Image files, pages and all that they are sent stand in `rank --by finding`,\n`explain` and the work list of `refit`; loads in `clock`. In JSON a finding has its `id`, a `message` in words, and the\nevidence in `data`. Who fixes it decides under whom it stands in the work list. A finding that is none for your site is\nmuted in the config file, with a reason (`policy.mute`, see [settings.md](settings.md)).',
    ['| finding | what | who fixes it |', '| --- | --- | --- |']
      .concat(
        chapters.flatMap(([, kinds]) =>
          kinds.map(
            ({ id, title, doer }) =>
              `| [\`${id}\`](#${anchor(id, title)}) | ${cell(title)} | ${doer ?? '–'} |`,
          ),
        ),
      )
      .join('\n'),
    ...chapters.flatMap(([title, kinds]) => [`## ${title}`, ...kinds.map(story)]),
  ].join('\n\n')}\n`;
}

/** The anchor of a heading, as hosts of code make it. */
function anchor(id, title) {
  return `${id}: ${title}`
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}\s_-]/gu, '')
    .replaceAll(' ', '-');
}
