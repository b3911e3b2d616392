import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { similarity } from '../../src/core/pixels/similarity.js';
import { reduce } from '../../src/images/picture.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { scene } from '../support/pictures.js';
import { oneView, run, runJson } from '../support/program.js';
import type { RefitManifestDocument as Manifest } from '../support/refit-manifest.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import type { Answers } from '../support/server.js';

/** What content systems leave of an upload: reduced, and much compressed. */
const reduced = (whole: Buffer) =>
  sharp(whole).resize(640, 480, { kernel: 'linear' }).jpeg({ quality: 70 }).toBuffer();

const image = (src: string) => `<p><img src="${src}" width="400" height="300" alt=""></p>`;

let whole: Buffer;
let answers: Answers;
beforeAll(async () => {
  whole = await scene(1920, 1440).jpeg({ quality: 95 }).toBuffer();
  const small = { type: 'image/jpeg', body: await reduced(whole) };
  const marked = await sharp(whole).tint('#6080ff').jpeg().toBuffer();
  const other = { type: 'image/jpeg', body: await reduced(marked) };
  const third = await scene(1910, 1432).jpeg({ quality: 95 }).toBuffer();
  answers = {
    '/': {
      body: `<!doctype html><title>Bay</title>${['/up/bay-640x480.jpg', '/up/pier-640x480.jpg', '/closed/sea-640x480.jpg'].map(image).join('')}`,
    },
    '/robots.txt': { type: 'text/plain', body: 'User-agent: *\nDisallow: /closed/sea.jpg' },
    '/up/bay-640x480.jpg': small,
    '/up/bay.jpg': { type: 'image/jpeg', body: whole },
    // Under the name of the whole there is the same picture in other colours.
    '/up/pier-640x480.jpg': other,
    '/up/pier.jpg': { type: 'image/jpeg', body: whole },
    '/closed/sea-640x480.jpg': { type: 'image/jpeg', body: await reduced(third) },
    '/closed/sea.jpg': { type: 'image/jpeg', body: third },
  };
});

async function refitted(config = '') {
  const cwd = temporaryFolder();
  writeFiles(cwd, { 'zealous-lynx.config.yaml': config });
  const site = await serve(answers);
  await run(['survey', `${site.origin}/`, ...oneView], { cwd });
  const manifest = await runJson<Manifest>(['refit', '--out', 'new', '--no-prove'], { cwd });
  const from = Object.fromEntries(
    manifest.files.map(({ originals, pixelsFrom }) => [
      new URL(originals[0]!).pathname,
      pixelsFrom && new URL(pixelsFrom).pathname,
    ]),
  );
  return { cwd, site, manifest, from };
}

describe('a refit of reduced files', () => {
  it('is made from the original where the name points to it, and it shows the same', async () => {
    const { cwd, manifest, from, site } = await refitted();
    expect(schemaErrors('refit', manifest)).toEqual([]);
    expect(from).toEqual({
      '/up/bay-640x480.jpg': '/up/bay.jpg',
      '/up/pier-640x480.jpg': null,
      '/closed/sea-640x480.jpg': null,
    });
    expect(site.asked).not.toContain('/closed/sea.jpg');
    const made = manifest.files.find(({ pixelsFrom }) => pixelsFrom !== null)!;
    const size = { width: made.to.width!, height: made.to.height! };
    expect(size.width).toBe(400);
    // It is as much like the original as the policy asks for, which nothing made from the reduced file can be.
    const body = readFileSync(join(cwd, 'new', made.path));
    const [ideal, own, old] = await Promise.all(
      [whole, body, answers['/up/bay-640x480.jpg'] as { body: Buffer }].map(async (one) =>
        reduce(Buffer.isBuffer(one) ? one : one.body, 1, size),
      ),
    );
    expect(similarity(ideal!.colours, own!.colours)).toBeGreaterThanOrEqual(0.991);
    expect(similarity(ideal!.colours, old!.colours)).toBeLessThan(0.985);
    const { stdout } = await run(['refit', '--out', 'new', '--no-prove'], { cwd });
    expect(stdout).toContain('1 of them is made from a larger file of the same picture: http');
    // What is put in place is known again: nothing is left to do for it.
    const deployed = await serve({
      ...{ '/': { body: `<!doctype html>${image('/bay.avif')}` } },
      '/bay.avif': { type: made.mediaType, body },
    });
    await run(['survey', `${deployed.origin}/`, ...oneView], { cwd });
    const again = await runJson<{ perVisit: { wasteBytes: number } }>(['rank'], { cwd });
    expect(again.perVisit.wasteBytes).toBe(0);
  });

  it.each(['known', 'never'])(
    'asks the site for nothing where the policy says %s',
    async (rule) => {
      const { from, site } = await refitted(`policy: { largerFiles: ${rule} }\n`);
      expect(Object.values(from)).toEqual([null, null, null]);
      expect(site.asked).not.toContain('/up/bay.jpg');
    },
  );

  it('has another hash in its name than the same image made from itself', async () => {
    const { cwd } = await refitted();
    const named = async () => {
      const call = [
        'refit',
        '--out',
        'named',
        '--no-prove',
        '--dry-run',
        '--name',
        '{stem}.{hash}',
      ];
      const { files } = await runJson<Manifest>(call, { cwd });
      return files.map(({ path }) => path);
    };
    const asked = await named();
    writeFiles(cwd, { 'zealous-lynx.config.yaml': 'policy: { largerFiles: never }\n' });
    const own = await named();
    const isSame = asked.map((path, at) => [path.split('.')[0], path === own[at]]);
    expect(Object.fromEntries(isSame)).toEqual({
      'up/bay-640x480': false,
      'up/pier-640x480': true,
      'closed/sea-640x480': true,
    });
  });

  it('is made from the largest file that the survey knows', async () => {
    const { '/': _, ...files } = answers;
    const cwd = temporaryFolder();
    writeFiles(cwd, { 'zealous-lynx.config.yaml': 'policy: { largerFiles: known }\n' });
    const site = await serve({
      ...files,
      '/': {
        body: `<!doctype html>${image('/up/bay-640x480.jpg')}<img src="/up/bay.jpg" width="960" height="720" alt="">`,
      },
    });
    await run(['survey', `${site.origin}/`, ...oneView], { cwd });
    const { files: made } = await runJson<Manifest>(['refit', '--out', 'new', '--no-prove'], {
      cwd,
    });
    const small = made.find(({ originals }) => originals[0]!.endsWith('640x480.jpg'));
    expect(small?.pixelsFrom).toBe(`${site.origin}/up/bay.jpg`);
  });
});
