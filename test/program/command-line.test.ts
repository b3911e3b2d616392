import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';
import { describe, expect, it } from 'vitest';
import { oneView, outcomeOf, run, runHere, runJson, start } from '../support/program.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';

const stack = /\n\s+at .*:\d+:\d+/;

describe('a call without arguments', () => {
  it('gives the help', async () => {
    const { status, stdout } = await runHere([], { cwd: temporaryFolder() });
    expect([status, stdout]).toEqual([0, expect.stringContaining('zealous-lynx <command>')]);
  });
});

describe('folders and files', () => {
  it('says of a file that its folder is wanted, and never writes over originals', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'site/index.html': '<p>Kites',
      'site/a.jpg': await photograph(60, 40).jpeg().toBuffer(),
    });
    const file = await runHere(['survey', 'site/index.html'], { cwd });
    expect([file.status, file.stderr]).toEqual([2, expect.stringContaining('give its folder')]);
    const over = await runHere(['refit', '--from', 'site', '--out', 'site'], { cwd });
    expect([over.status, over.stderr]).toEqual([
      2,
      expect.stringContaining('a refit is never written over them'),
    ]);
  });
});

it('proves no markup in a folder of which it cannot tell the page', async () => {
  const cwd = temporaryFolder();
  writeFiles(cwd, { 'site/a.html': '<img src=a.png>', 'site/b.html': '', 'a.html': '<img src=a>' });
  const call = ['prove', 'site', 'img', 'a.html'];
  const { status, stderr } = await runHere(call, { cwd });
  expect([status, stderr]).toEqual([2, expect.stringContaining('give the address of one page')]);
});

describe('a wrong call', () => {
  it.each([
    [['surve', 'x'], 'there is no command surve – did you mean survey?', 'USAGE'],
    [['rank', '--tpo', '5'], 'there is no option --tpo – did you mean --top?', 'USAGE'],
    [['rank', '--pagse', '/x'], 'there is no option --pagse – did you mean --page?', 'USAGE'],
    [
      ['survey', 'x', '--pagse', '9'],
      'there is no option --pagse – did you mean --pages?',
      'USAGE',
    ],
    [
      ['survey', 'x', '--no-encodes'],
      'there is no option --no-encodes – did you mean --no-encode?',
      'USAGE',
    ],
    [['refit'], '--out is missing', 'SETTING'],
    [
      ['survey'],
      'say where to start – give an address or a folder, --list, --sitemap, --changed-since or --resume',
      'USAGE',
    ],
    [['clock'], 'say which pages to load', 'USAGE'],
    [
      ['compare', 'before'],
      'compare needs more than it was given – write zealous-lynx compare <before> <after>',
      'USAGE',
    ],
    [['rank', 'june'], 'rank has no use for june – name a survey with --survey june', 'USAGE'],
    [
      ['explain', 'main', 'img'],
      'explain has no use for img – write zealous-lynx explain <what>, each value that has spaces in quotes',
      'USAGE',
    ],
    [['rank', '--top', 'many'], '--top: expected a whole number from 1 to', 'SETTING'],
    [['rank', '--sort', 'size'], '--sort: expected one of waste, sent', 'SETTING'],
    [
      ['clock', 'http://a.test', '--network', 'x'],
      '--network: expected one of slow-mobile',
      'SETTING',
    ],
    [['survey', './nowhere'], 'there is no folder ./nowhere', 'NOT_FOUND'],
    [['rank'], 'there is no workspace in .zealous-lynx', 'WORKSPACE'],
    [['refit'], 'expected the folder to write to, given with --out', 'SETTING'],
    [['rank', '--config', 'none.yaml'], 'there is no config file none.yaml', 'SETTING'],
  ])('%j is told in one line', async (values, words, code) => {
    const { status, stdout, stderr } = await runHere(values, { cwd: temporaryFolder() });
    expect(status).toBe(code === 'WORKSPACE' ? 3 : 2);
    expect(stdout).toBe('');
    expect(stderr).toContain(words);
    expect(stderr).toMatch(new RegExp(`^zealous-lynx: [^\\n]+\\[${code}\\]\\n$`));
    expect(stderr).not.toMatch(stack);
  });

  it('shows the stack when it is asked to', async () => {
    const { stderr } = await runHere(['rank', '--verbose'], { cwd: temporaryFolder() });
    expect(stderr).toMatch(stack);
  });
});

describe('settings', () => {
  it.each([
    ['pages: many\n', 'zealous-lynx.config.yaml: pages: expected a whole number'],
    ['pagess: 5\n', 'there is no setting pagess – did you mean pages?'],
    ['views:\n  - { name: a, width: 5, height: 900, share: 1 }\n', 'views[0].width: expected '],
    [
      'views:\n  - { name: a, width: 500, height: 900, share: 0.4 }\n',
      'views whose shares add up to 1',
    ],
    ['policy: { quality: { most: 0 } }\n', 'policy.quality.most: expected a whole number'],
    [
      'policy: { quality: { least: 80, most: 60 } }\n',
      'expected qualities where least is not greater than most',
    ],
    [
      'views:\n  - { name: a, width: 500, height: 900, share: 1, heigth: 5 }\n',
      'expected the settings name, width, height, density, touch, share; there is no heigth',
    ],
    ['policy: { qualty: {} }\n', 'there is no qualty'],
    ['groups: { name: a }\n', 'groups: expected a list of page groups'],
    [
      'access: [{ host: a.test, header: { X: s3cret } }]\n',
      'access[0]: expected the settings host, basic, headers, cookies; there is no header',
    ],
    ['access: { host: s3cret }\n', 'access: expected a list of hosts'],
    ['policy: { formats: [bmp] }\n', 'policy.formats[0]: expected one of jpeg'],
    ['views: [\n', 'cannot be read (line'],
    ['- a\n', 'is not a mapping of settings'],
  ])('a config file with %j is refused with its place', async (text, words) => {
    const cwd = temporaryFolder();
    writeFiles(cwd, { 'zealous-lynx.config.yaml': text, 'site/index.html': '<p>x' });
    const { status, stderr } = await runHere(['survey', 'site', ...oneView], { cwd });
    expect(stderr).toContain(words);
    expect(status).toBe(2);
  });

  it('come from flags, then the environment, then the file, then the defaults', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'zealous-lynx.config.yaml':
        'workspace: from-file\nviews:\n  - { name: wall, width: 800, height: 600, share: 1 }\n',
      'site/index.html': '<p>x',
    });
    const { survey } = await runJson<{ survey: { views: { name: string }[] } }>(
      ['survey', 'site'],
      { cwd },
    );
    expect(survey.views.map(({ name }) => name)).toEqual(['wall']);
    expect(existsSync(join(cwd, 'from-file/workspace.sqlite'))).toBe(true);
    const env = { ZEALOUS_LYNX_WORKSPACE: 'from-variable' };
    await runJson(['survey', 'site'], { cwd, env });
    expect(existsSync(join(cwd, 'from-variable/workspace.sqlite'))).toBe(true);
    await runJson(['survey', 'site', '--workspace', 'from-flag'], { cwd, env });
    expect(existsSync(join(cwd, 'from-flag/workspace.sqlite'))).toBe(true);
    const wrong = await run(['rank'], { cwd, env: { ZEALOUS_LYNX_TOP: '0' } });
    expect(wrong.stderr).toContain('ZEALOUS_LYNX_TOP: expected a whole number');
  });
});

describe('the program', () => {
  it('says how each command is used, with examples', async () => {
    const cwd = temporaryFolder();
    const all = await runHere(['--help'], { cwd });
    expect(all.status).toBe(0);
    const commands = [
      'survey',
      'rank',
      'explain',
      'refit',
      'clock',
      'compare',
      'surveys',
      'demo',
      'completion',
    ];
    for (const command of commands) expect(all.stdout).toContain(`zealous-lynx ${command}`);
    for (const command of commands) {
      const { stdout } = await runHere([command, '--help'], { cwd });
      expect(stdout).toContain('Examples:');
      expect(stdout).toContain('--workspace');
    }
    expect((await runHere(['--version'], { cwd })).stdout).toMatch(/^\d+\.\d+\.\d+\n$/);
  });

  it('refuses a workspace that a newer version wrote, and leaves it alone', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, { 'site/index.html': '<p>x' });
    await run(['survey', 'site', ...oneView], { cwd });
    const path = join(cwd, '.zealous-lynx/workspace.sqlite');
    const database = new Database(path);
    database.pragma('user_version = 1000');
    database.pragma('wal_checkpoint(TRUNCATE)');
    database.close();
    const before = readFileSync(path);
    for (const values of [['rank'], ['survey', 'site'], ['compare', 'a', 'b']]) {
      const { status, stderr } = await runHere(values, { cwd });
      expect(status).toBe(3);
      expect(stderr).toMatch(
        /was written by a newer version .*update zealous-lynx.*\[WORKSPACE\]\n$/,
      );
    }
    expect(readFileSync(path).equals(before)).toBe(true);
  });

  it('says what to do when there is no browser', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, { 'site/index.html': '<p>x' });
    const env = { ZEALOUS_LYNX_BROWSER: join(cwd, 'none') };
    const { status, stderr } = await run(['survey', 'site'], { cwd, env });
    expect(status).toBe(3);
    expect(stderr).toMatch(/no browser found – install Chromium.*\[BROWSER\]\n$/);
  });

  it('prints nothing of a page that could move the cursor', async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(20, 20).png().toBuffer();
    writeFiles(cwd, {
      'site/index.html': '<meta charset="utf-8"><title>\u001b[2J</title><img src="\u202egnp.png">',
      'site/\u202egnp.png': picture,
    });
    await run(['survey', 'site', '--label', 'a\u001b[31mb', ...oneView], { cwd });
    const { stdout } = await run(['rank'], { cwd });
    expect(stdout).toContain('gnp.png');
    expect(stdout).toContain('\uFFFD[31mb');
    // eslint-disable-next-line no-control-regex
    expect(stdout).not.toMatch(/[\u001b\u202e]/);
  });

  it('keeps what is done when it is stopped, and ranks that', async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(300, 200).jpeg().toBuffer();
    const links = ['/two', '/slow'].map((href) => `<a href="${href}">x</a>`).join('');
    const { origin, asked } = await serve({
      '/': { body: `<!doctype html><img src="/a.jpg" width="30">${links}` },
      '/two': { body: '<!doctype html><p>two' },
      '/slow': { body: 'never in time', wait: 20_000 },
      '/a.jpg': { type: 'image/jpeg', body: picture },
    });
    const child = start(['survey', `${origin}/`, '--tabs', '1', ...oneView], { cwd });
    const ended = outcomeOf(child);
    while (!asked.includes('/slow')) await new Promise((resolve) => setTimeout(resolve, 50));
    child.kill('SIGINT');
    const { status, stdout, stderr } = await ended;
    expect(status).toBe(130);
    expect(stderr).toContain('Stopping; what is done is kept');
    expect(stdout).toContain('2 pages surveyed');
    const ranked = await run(['rank'], { cwd });
    expect(ranked.stdout).toContain('this survey was interrupted');
    expect(ranked.stdout).toContain('/a.jpg');
  });
});
