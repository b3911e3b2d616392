import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { run, runJson } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { serve } from '../support/server.js';

describe('clock --film', () => {
  // A frame that a busy machine drew late makes a true film look wrong: it is filmed again.
  it('films what a page shows while it loads, in a load of its own', { retry: 1 }, async () => {
    const cwd = temporaryFolder();
    const picture = await sharp({
      create: { width: 40, height: 40, channels: 3, background: '#000' },
    })
      .png()
      .toBuffer();
    // A black half of the screen at once, the other half of it when the picture is there.
    const { origin } = await serve({
      '/': {
        body: `<!doctype html><link rel="icon" href="data:,"><body style="margin:0">
          <div style="height:50vh;background:#000"></div>
          <img src="/a.png" style="width:100vw;height:50vh;display:block">`,
      },
      '/a.png': { type: 'image/png', body: picture, wait: 1_200 },
    });
    const call = ['clock', `${origin}/`, '--runs', '1', '--network', 'none', '--no-interactive'];
    const { film, runs } = await runJson<{
      readonly runs: readonly unknown[];
      readonly film: {
        readonly visuallyComplete: number;
        readonly unfinishedTime: number;
        readonly frames: readonly { readonly at: number; readonly completeness: number }[];
      };
    }>([...call, '--film', 'film.png'], { cwd });
    expect(runs).toHaveLength(1);
    const [first, ...later] = film.frames;
    expect(first).toEqual({ at: 0, completeness: 0 });
    const half = later.find(({ completeness }) => completeness > 0)!;
    expect(half.completeness).toBeCloseTo(0.5, 1);
    expect(half.at).toBeLessThan(1_200);
    expect(film.frames.at(-1)!.completeness).toBe(1);
    expect(film.visuallyComplete).toBeGreaterThan(1_200);
    expect(film.unfinishedTime).toBeCloseTo(
      half.at + (film.visuallyComplete - half.at) * (1 - half.completeness),
      -2,
    );
    const strip = await sharp(readFileSync(join(cwd, 'film.png'))).metadata();
    expect([strip.format, strip.width]).toEqual(['png', 1280]);
    const drawn = await run([...call, '--film', 'film.svg'], { cwd });
    expect(drawn.stdout).toMatch(
      /What visitors see.*\n +0 ms ▕.*▏.*visually complete at .*unfinished/,
    );
    expect(readFileSync(join(cwd, 'film.svg'), 'utf8')).toMatch(/^<svg [^]*data:image\/jpeg/);
    const recorded = await run(['clock', '--har', 'x.har', '--film', 'film.png'], { cwd });
    expect(recorded.stderr).toContain('a recording has no film');
  });
});
