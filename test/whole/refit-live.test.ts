import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { oneView, run, runJson } from '../support/program.js';
import type { RefitManifestDocument as Manifest } from '../support/refit-manifest.js';

describe('a refit that is live', () => {
  it('is known by its manifest in a workspace that did not make it', async () => {
    const cwd = temporaryFolder();
    const numbers = [0, 1, 2, 3];
    const pictures = numbers.map(async (at) => [
      `site/img/${at}.jpg`,
      await photograph(600, 400, at + 1)
        .jpeg({ quality: 95 })
        .toBuffer(),
    ]);
    writeFiles(cwd, {
      'site/index.html': numbers
        .map((at) => `<img src="/img/${at}.jpg" width="350" height="234" alt="">`)
        .join(''),
      ...(Object.fromEntries(await Promise.all(pictures)) as Record<string, Buffer>),
    });
    await run(['survey', 'site', ...oneView], { cwd });
    const { files } = await runJson<Manifest>(['refit', '--out', 'live/site'], { cwd });
    const page = files
      .map(
        ({ path, to }) => `<img src="/${path}" width="${to.width}" height="${to.height}" alt="">`,
      )
      .join('');
    writeFiles(cwd, { 'live/site/index.html': `<!doctype html>${page}` });
    const wasteIn = async (workspace: string, more: readonly string[]) => {
      const own = { cwd, env: { ZEALOUS_LYNX_WORKSPACE: workspace } };
      await run(['survey', 'live/site', ...oneView, ...more], own);
      const { totals } = await runJson<{ totals: { wasteBytes: number } }>(['rank'], own);
      return totals.wasteBytes;
    };
    // A file of somebody else would be encoded again, from what the first encode has left.
    expect(await wasteIn('strange', [])).toBeGreaterThan(0);
    expect(await wasteIn('told', ['--refit', 'live/site'])).toBe(0);
    const wrong = await run(['survey', 'live/site', '--refit', 'site'], { cwd });
    expect(wrong.status).toBe(2);
    expect(wrong.stderr).toContain('is no manifest of a refit');
  });
});

describe('refit beside a feed and a web manifest', () => {
  it('gives nothing smaller the name of a picture that they name', async () => {
    const folder = temporaryFolder();
    const picture = (seed: number) => photograph(600, 400, seed).jpeg({ quality: 95 }).toBuffer();
    const names = ['plain', 'fed', 'app'];
    writeFiles(folder, {
      'zealous-lynx.config.yaml': 'policy: { formats: [jpeg] }\n',
      'site/index.html': `<!doctype html><link rel="alternate" type="application/rss+xml" href="/feed.xml">
<link rel="manifest" href="/app.webmanifest">${names.map((name) => `<img src="/${name}.jpg" width="150" height="100" alt="">`).join('')}`,
      'site/feed.xml': `<rss><channel><item><description><![CDATA[<img src="/fed.jpg">]]></description></item></channel></rss>`,
      'site/app.webmanifest': JSON.stringify({ screenshots: [{ src: 'app.jpg' }] }),
      'site/plain.jpg': await picture(1),
      'site/fed.jpg': await picture(2),
      'site/app.jpg': await picture(3),
    });
    await run(['survey', 'site', ...oneView], { cwd: folder });
    const { files } = await runJson<Manifest>(['refit', '--out', 'new'], { cwd: folder });
    expect(files).toHaveLength(3);
    // To compare with: nobody else names it, so its own name becomes free.
    expect(files.map(({ path }) => path)).toContain('plain.jpg');
    expect(existsSync(join(folder, 'new/fed.jpg'))).toBe(false);
    expect(existsSync(join(folder, 'new/app.jpg'))).toBe(false);
  });
});
