import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph, scene } from '../support/pictures.js';
import { oneView, outcomeOf, run, start } from '../support/program.js';

let files: Readonly<Record<string, Buffer>>;

beforeAll(async () => {
  files = {
    'img/beach.jpg': await scene(1600, 1000).jpeg({ quality: 97 }).toBuffer(),
    'img/kites.jpg': await scene(1000, 700).flop().jpeg({ quality: 95 }).toBuffer(),
    'img/sand.jpg': await photograph(500, 300).jpeg({ quality: 95 }).toBuffer(),
  };
});

/** A page on which three photographs are far too large. */
function site(folder: string): string {
  writeFiles(join(folder, 'bay'), {
    'index.html': `<!doctype html><title>Bay</title><style>img{display:block}</style>
      <img id="beach" src="img/beach.jpg" width="400"><img id="kites" src="img/kites.jpg" width="300">
      <img id="sand" src="img/sand.jpg" width="200">`,
    ...files,
  });
  return join(folder, 'bay');
}

/** What an average visit wastes, in kilobytes, as a sentence tells it. */
const wasteIn = (text: string) => Number(/wastes (?:about )?([\d.]+) kB/.exec(text)?.[1]);
/** The slots of a table, in its order. */
const slotsIn = (text: string) => text.match(/^#\w+/gm);

describe('the first estimate of a survey', () => {
  it('ranks the images before all encodes are made, and tells nearly what the end tells', async () => {
    const cwd = temporaryFolder();
    const { status, stdout, stderr } = await run(['survey', site(cwd), ...oneView], { cwd });
    expect(status).toBe(0);
    const first = stderr.indexOf('First estimate, from one encode of each of 3 images');
    expect(first).toBeGreaterThan(stderr.indexOf('encoding images once 3/3'));
    expect(first).toBeLessThan(stderr.indexOf('encoding images 3/3'));
    expect(stderr).toContain('and wastes about ');
    expect(stdout).not.toContain('First estimate');
    const [about, exactly] = [wasteIn(stderr), wasteIn(stdout)];
    expect(Math.abs(about - exactly) / exactly).toBeLessThan(0.1);
    expect(slotsIn(stderr)).toEqual(['#beach', '#sand', '#kites']);
    expect(slotsIn(stdout)).toEqual(['#beach', '#sand', '#kites']);

    const again = await run(['survey', join(cwd, 'bay'), ...oneView], { cwd });
    expect(again.stderr).not.toContain('First estimate');
    expect(again.stdout.split('\n').slice(1)).toEqual(stdout.split('\n').slice(1));
  });

  it('is not told where quiet or no encodes are asked for', async () => {
    const cwd = temporaryFolder();
    const bare = await run(['survey', site(cwd), ...oneView, '--no-encode'], { cwd });
    expect(bare.stderr).not.toContain('First estimate');
    const quiet = await run(['survey', join(cwd, 'bay'), ...oneView, '--quiet'], { cwd });
    expect(quiet.stderr).not.toContain('First estimate');
    expect(wasteIn(quiet.stdout)).toBeGreaterThan(0);
  });

  it('leaves nothing behind: a survey that is stopped after it comes to the same numbers', async () => {
    const cwd = temporaryFolder();
    const child = start(['survey', site(cwd), ...oneView], { cwd });
    child.stderr!.setEncoding('utf8').on('data', (text: string) => {
      if (text.includes('First estimate')) child.kill('SIGINT');
    });
    const stopped = await outcomeOf(child);
    expect(stopped.status).toBe(130);
    expect(stopped.stdout).toContain('Stopped. What was surveyed is kept');
    const resumed = await run(['survey', '--resume'], { cwd });
    expect(resumed.status).toBe(0);

    const other = temporaryFolder();
    const whole = await run(['survey', site(other), ...oneView], { cwd: other });
    expect(wasteIn(resumed.stdout)).toBe(wasteIn(whole.stdout));
    expect(slotsIn(resumed.stdout)).toEqual(slotsIn(whole.stdout));
  });
});
