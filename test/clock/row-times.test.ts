import { expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { oneView, run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';

interface Ranked {
  readonly timed: { readonly pages: number; readonly network: { readonly name: string } };
  readonly rows: readonly {
    readonly worst: { readonly url: string };
    readonly spared: { readonly largestContentfulPaint: number; readonly load: number };
  }[];
}

it('rank --sort time tells what a timed page would be spared, by simulating its load', async () => {
  const cwd = temporaryFolder();
  const large = await photograph(1600, 1200).jpeg({ quality: 100 }).toBuffer();
  const small = await photograph(900, 600).jpeg({ quality: 95 }).toBuffer();
  const { origin } = await serve({
    '/': {
      body: `<!doctype html><link rel="icon" href="data:,"><img src="/large.jpg" width="400" height="300">
        <img src="/small.jpg" width="300" height="200"><a href="/other">other</a>`,
    },
    '/other': {
      body: '<!doctype html><link rel="icon" href="data:,"><img src="/small.jpg" width="300" height="200">',
    },
    '/large.jpg': { type: 'image/jpeg', body: large },
    '/small.jpg': { type: 'image/jpeg', body: small },
  });
  const survey = await run(['survey', `${origin}/`, ...oneView], { cwd });
  expect(survey.status).toBe(0);
  const early = await run(['rank', '--sort', 'time'], { cwd });
  expect([early.status, early.stderr]).toEqual([
    2,
    expect.stringContaining('no page of this survey has been timed'),
  ]);
  const clocked = await run(
    ['clock', `${origin}/`, '--runs', '1', '--network', 'mobile', '--view', 'laptop'],
    { cwd },
  );
  expect(clocked.status).toBe(0);
  const ranked = await runJson<Ranked>(['rank', '--by', 'image', '--sort', 'time'], { cwd });
  expect(schemaErrors('rank', ranked)).toEqual([]);
  expect(ranked.timed).toMatchObject({ pages: 1, network: { name: 'mobile' } });
  expect(ranked.rows.map(({ worst }) => new URL(worst.url).pathname)).toEqual([
    '/large.jpg',
    '/small.jpg',
  ]);
  // The line carries 375 bytes a millisecond: what is not sent is spared, less what other files take of it meanwhile.
  const [first, second] = ranked.rows;
  expect(first!.spared.load).toBeGreaterThan(((large.length - small.length) / 375) * 0.5);
  expect(first!.spared.load).toBeGreaterThan(second!.spared.load);
  const { stdout } = await run(['rank', '--sort', 'time'], { cwd });
  expect(stdout).toContain('what an average visit to the one timed page would be spared');
});
