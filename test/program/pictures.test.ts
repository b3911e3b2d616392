import { beforeAll, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import { runJson, run, oneView } from '../support/program.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { scene } from '../support/pictures.js';

interface Ranked {
  readonly rows: readonly { readonly key: string; readonly files: number }[];
  readonly images: readonly {
    readonly url: string;
    readonly contentHash: string;
    readonly picture: string;
    readonly findings: readonly { readonly id: string; readonly message: string }[];
  }[];
}

let cwd: string;
let ranked: Ranked;

/** One photograph in six files by name, by `srcset` and by `<picture>`; beside it another cut of it, and other pictures. */
beforeAll(async () => {
  cwd = temporaryFolder(() => {});
  const whole = await scene(1200, 800).png().toBuffer();
  const jpeg = (width: number) => sharp(whole).resize(width).jpeg().toBuffer();
  const cut = sharp(whole).extract({ left: 300, top: 100, width: 600, height: 400 });
  const other = sharp(whole).rotate(180);
  const image = (path: string, width: number) => `<img src="${path}" width="${width}" alt="Kites">`;
  writeFiles(cwd, {
    'site/index.html': `<!doctype html><meta name="viewport" content="width=device-width"><title>Kites</title>
      ${image('/up/kites.jpg', 600)}${image('/up/kites-300x200.jpg', 300)}${image('/up/kites-150x100.jpg', 300)}
      <img srcset="/srv/a1b2 400w, /up/kites-600x400.jpg 600w" sizes="400px" alt="Kites">
      <picture><source media="(min-width: 1px)" type="image/webp" srcset="/srv/c3d4"><img src="/up/kites.jpg" alt="Kites"></picture>
      ${image('/up/kites-600x401.jpg', 300)}${image('/up/kites-600.jpg', 300)}${image('/up/thumb_kites.jpg', 99)}
      <img srcset="/up/kites-600x400.jpg 600w" sizes="600px" alt="Kites">`,
    'site/up/kites.jpg': await jpeg(1200),
    'site/up/kites-600x400.jpg': await jpeg(600),
    'site/up/kites-300x200.jpg': await jpeg(300),
    'site/up/kites-150x100.jpg': await jpeg(150),
    'site/up/thumb_kites.jpg': await sharp(whole)
      .resize(99, 99, { fit: 'cover' })
      .jpeg()
      .toBuffer(),
    'site/up/kites-600.jpg': await cut.clone().jpeg().toBuffer(),
    'site/up/kites-600x401.jpg': await other.clone().resize(600).jpeg().toBuffer(),
    'site/srv/a1b2': await jpeg(400),
    'site/srv/c3d4': await sharp(whole).resize(1200).webp().toBuffer(),
  });
  await runJson(['survey', 'site', ...oneView], { cwd });
  ranked = await runJson<Ranked>(['rank', '--by', 'image', '--top', '50'], { cwd });
});

const name = (url: string) => new URL(url).pathname;

describe('the files of one picture', () => {
  it('are one row, known by name and by markup, and confirmed by looking alike', () => {
    const pictures = new Map<string, string[]>();
    for (const { url, picture } of ranked.images)
      pictures.set(picture, [...(pictures.get(picture) ?? []), name(url)].sort());
    expect([...pictures.values()].sort()).toEqual([
      ['/srv/a1b2', '/srv/c3d4', '/up/kites-150x100.jpg', '/up/kites-300x200.jpg']
        .concat('/up/kites-600x400.jpg', '/up/kites.jpg')
        .sort(),
      // Named as if they were, but a cut, another picture, and a square.
      ['/up/kites-600.jpg'],
      ['/up/kites-600x401.jpg'],
      ['/up/thumb_kites.jpg'],
    ]);
    expect(ranked.rows.map(({ files }) => files).sort()).toEqual([1, 1, 1, 6]);
    const hashes = new Set(ranked.images.map(({ contentHash }) => contentHash));
    for (const { key } of ranked.rows) expect(hashes).toContain(key);
  });

  it('are told in words, too, and every file finds them', async () => {
    const { stdout } = await run(['rank', '--by', 'image'], { cwd });
    expect(stdout).toMatch(/4 pictures in 9 image files/);
    const story = await run(['explain', '/up/kites-300x200.jpg'], { cwd });
    expect(story.stdout).toMatch(/One picture in 6 files/);
    expect(story.stdout).toMatch(/kites-300x200\.jpg .*← this file/);
    const document = await runJson<{
      picture: { id: string; files: { intrinsic: { width: number } }[] };
    }>(['explain', '/srv/a1b2'], { cwd });
    const widths = document.picture.files.map(({ intrinsic }) => intrinsic.width);
    expect(widths).toEqual([1200, 1200, 600, 400, 300, 150]);
    expect(ranked.images.map(({ picture }) => picture)).toContain(document.picture.id);
  });

  it('name the larger one where a file is too small', () => {
    const small = ranked.images.find(({ url }) => url.endsWith('150x100.jpg'))!;
    const blurred = small.findings.find(({ id }) => id === 'too-few-pixels');
    expect(blurred?.message).toMatch(/2\.0 times larger.*the site has it in 1200×800: http/);
  });
});
