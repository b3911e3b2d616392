import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { oneView, run, runJson } from '../support/program.js';
import type { RefitManifestDocument as Manifest } from '../support/refit-manifest.js';

describe('an animation that stays heavy', () => {
  it('is told to be made a video', async () => {
    const folder = temporaryFolder();
    const frames = await Promise.all(
      Array.from({ length: 6 }, (_, at) =>
        photograph(360, 360, at + 1)
          .png()
          .toBuffer(),
      ),
    );
    const film = await sharp(frames, { join: { animated: true } })
      .gif()
      .toBuffer();
    writeFiles(folder, {
      'site/index.html': '<img src="film.gif" width="360" height="360" alt="">',
      'site/film.gif': film,
    });
    await run(['survey', 'site', ...oneView], { cwd: folder });
    const { worklist } = await runJson<Manifest>(['refit', '--out', 'new'], { cwd: folder });
    expect(worklist.find(({ what }) => what.startsWith('make it a video'))).toMatchObject({
      who: 'content',
      what: expect.stringMatching(/its 6 frames take \d{3} kB even at their need/) as string,
    });
  });
});
