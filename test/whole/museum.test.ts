import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { demoCache, sharedDemo } from '../support/shared-demo.js';
import { runJson, start, twoViews } from '../support/program.js';

interface Shown {
  readonly view: string;
  readonly kind: string;
  readonly selector: string;
  readonly slot: { width: number; height: number };
  readonly rendered: { width: number; height: number };
  readonly naturalDensity: number;
  readonly shown: boolean;
  readonly aboveFold: boolean;
  readonly fetched: string | null;
  readonly loading: string;
  readonly markup: Readonly<Record<string, unknown>> | null;
  readonly slotCurve: readonly { from: number; to: number; a: number; b: number }[] | null;
}
interface File {
  readonly url: string;
  readonly contentHash: string;
  readonly answers: readonly {
    readonly url: string;
    readonly redirects: readonly string[];
  }[];
  readonly bytes: number;
  readonly transferBytes: number;
  readonly mediaType: string;
  readonly intrinsic: object | null;
  readonly findings: readonly { id: string }[];
  readonly thirdParty: boolean;
  readonly placements: readonly Shown[];
}

let cwd: string;
let site: ChildProcess;
let files: readonly File[];
let missing: readonly object[];
let pictures: string;

beforeAll(async () => {
  cwd = mkdtempSync(join(tmpdir(), 'lynx-museum-'));
  await sharedDemo();
  const env = { ZEALOUS_LYNX_CACHE: demoCache() };
  site = start(['demo', '--serve', '--json'], { cwd, env });
  const hosts = await new Promise<Record<string, string>>((resolve) =>
    site.stdout!.once('data', (text: Buffer) =>
      resolve((JSON.parse(text.toString()) as { hosts: Record<string, string> }).hosts),
    ),
  );
  const address = hosts['brindlebay.test']!;
  ({ missingImages: missing } = await runJson<{ missingImages: object[] }>(
    [
      'survey',
      'http://brindlebay.test/museum/',
      '--pages',
      '1',
      '--map-host',
      `*.test=${address}`,
      ...twoViews,
    ],
    { cwd },
  ));
  pictures = join(demoCache(), readdirSync(demoCache())[0]!);
  ({ images: files } = await runJson<{ images: File[] }>(['rank', '--top', '1000'], { cwd }));
});

afterAll(async () => {
  site.kill('SIGINT');
  await once(site, 'close');
  rmSync(cwd, { recursive: true, force: true });
});

/** The placement with a selector in a view, with the name of the file it shows. */
function exhibit(
  selector: string,
  view = 'laptop',
  kind?: string,
  name?: string,
): Shown & { file: string } {
  const found = files.flatMap(({ url, placements }) =>
    placements.map((placement) => ({ ...placement, file: url.split('/').pop()! })),
  );
  const match = found.find(
    (one) =>
      one.selector === selector &&
      one.view === view &&
      (!kind || one.kind === kind) &&
      (!name || one.file === name),
  );
  if (!match) throw new Error(`no placement ${selector} in ${view}`);
  return match;
}

describe('the kite museum', () => {
  it.each([
    // selector, kind, file, slot, rendered: as the museum's own markup and style sheet say.
    ['#cover', 'img', 'hall.jpg', [200, 200], [300, 200]],
    ['#contain', 'img', 'hall.jpg', [200, 200], [200, 133.33]],
    ['#fill', 'img', 'hall.jpg', [200, 50], [200, 50]],
    ['#none', 'img', 'plate.png', [100, 100], [300, 200]],
    ['#scale-down', 'img', 'tile.png', [200, 200], [64, 64]],
    ['#zoomed', 'img', 'plate.png', [300, 200], [300, 200]],
    ['#turned', 'img', 'turned.jpg', [100, 150], [100, 150]],
    ['#reel', 'img', 'reel.gif', [120, 120], [120, 120]],
    ['#by-density', 'img', 'plate.png', [300, 200], [300, 200]],
    ['#by-width', 'img', 'plate.png', [200, 133.33], [200, 133.33]],
    ['#button', 'input', 'plate.png', [90, 60], [90, 60]],
    ['#film', 'poster', 'hall.jpg', [240, 240], [240, 160]],
    ['#drawn', 'svg-image', 'hall.jpg', [180, 140], [210, 140]],
    ['#thing', 'object', 'plate.png', [150, 100], [150, 100]],
    ['#embedded', 'embed', 'plate.png', [120, 80], [120, 80]],
    ['#painted', 'background', 'hall.jpg', [200, 100], [200, 133.33]],
    ['#layers', 'background', 'tile.png', [200, 100], [32, 32]],
    ['#layers', 'background', 'plate.png', [200, 100], [100, 50]],
    ['#tiled', 'background', 'tile.png', [200, 100], [64, 64]],
    ['#image-set', 'background', 'plate.png', [200, 100], [150, 100]],
    ['#framed', 'border-image', 'tile.png', [64, 64], [64, 64]],
    ['#masked', 'mask', 'plate.png', [200, 100], [90, 60]],
    ['#listed', 'list-style', 'tile.png', [64, 64], [64, 64]],
    ['#before::before', 'content', 'tile.png', [64, 64], [64, 64]],
    ['#behind::after', 'background', 'plate.png', [90, 60], [90, 60]],
    ['#replaced', 'content', 'plate.png', [60, 40], [60, 40]],
    ['#pointed', 'cursor', 'tile.png', [64, 64], [64, 64]],
    ['#shadow >>> #inner', 'img', 'plate.png', [80, 53], [80, 53]],
    ['#near >>> #within', 'img', 'plate.png', [90, 60], [90, 60]],
    ['#far >>> #strange', 'img', 'weather.png', [160, 80], [160, 80]],
    ['#lazy', 'img', 'plate-2x.png', [150, 100], [150, 100]],
    ['#magnified', 'img', 'plate.png', [90, 60], [90, 60]],
    ['#placed', 'img', 'hall.jpg', [120, 60], [120, 80]],
    ['#marked::marker', 'content', 'tile.png', [64, 64], [64, 64]],
    ['#reel-webp', 'img', 'reel.webp', [100, 100], [100, 100]],
    ['#reel-avif', 'img', 'reel.avif', [96, 96], [96, 96]],
    ['#compass', 'img', 'compass.svg', [72, 72], [72, 72]],
    ['#moved', 'img', 'plate.png', [90, 60], [90, 60]],
    ['#negotiated', 'img', 'reel.webp', [80, 80], [80, 80]],
    ['#false-name', 'img', 'turned.jpg', [60, 40], [60, 40]],
    ['#lent', 'img', 'tile.png', [64, 64], [64, 64]],
    ['#late', 'img', 'plate-2x.png', [60, 40], [60, 40]],
  ])('%s is a %s that shows %s', (selector, kind, file, slot, rendered) => {
    for (const view of ['laptop', 'phone']) {
      // A dense screen is given the dense candidate; that is another case.
      if (view === 'phone' && /by-|image-set/.test(selector)) continue;
      const found = exhibit(selector, view, kind, file);
      expect(found.shown).toBe(true);
      expect(found.slot.width).toBeCloseTo(slot[0]!, 1);
      expect(found.slot.height).toBeCloseTo(slot[1]!, 1);
      expect(found.rendered.width).toBeCloseTo(rendered[0]!, 1);
      expect(found.rendered.height).toBeCloseTo(rendered[1]!, 1);
    }
  });

  it.each(['#by-density', '#by-width', '#image-set'])(
    '%s is given a candidate by its screen',
    (selector) => {
      expect(exhibit(selector, 'laptop').file).toBe('plate.png');
      expect(exhibit(selector, 'phone').file).toBe('plate-2x.png');
      expect(exhibit(selector, 'phone').rendered.width).toBeCloseTo(
        exhibit(selector).rendered.width,
        1,
      );
    },
  );

  it('tells what was asked for at once from what came only with the scroll', () => {
    expect(exhibit('#lazy')).toMatchObject({
      fetched: 'on-scroll',
      loading: 'lazy',
      aboveFold: false,
    });
    expect(exhibit('#late')).toMatchObject({ fetched: 'on-scroll', loading: 'eager' });
    expect(exhibit('#cover')).toMatchObject({ fetched: 'at-once', aboveFold: true });
  });

  it('tells what the markup says', () => {
    // Its style sheet gives its box; the one below is as large as its file.
    expect(exhibit('#cover').markup).toMatchObject({ alt: 'The hall', dimensions: true });
    expect(exhibit('#by-density').markup).toMatchObject({ dimensions: false });
    expect(exhibit('#fill').markup).toMatchObject({ alt: '' });
    expect(exhibit('#none').markup).toMatchObject({ alt: null, srcset: null });
    expect(exhibit('#turned').markup).toMatchObject({ dimensions: true });
    expect(exhibit('#by-width').markup).toMatchObject({
      srcset: '/img/museum/plate.png 300w, /img/museum/plate-2x.png 600w',
      sizes: '200px',
      decoding: 'async',
      fetchPriority: 'high',
    });
  });

  it('says of what is hidden that it is, and of what is placed nowhere that it was fetched', () => {
    expect(exhibit('#hidden')).toMatchObject({ shown: false, fetched: 'at-once' });
    // Drawn to a canvas; asked for ahead, and never used.
    for (const name of ['attic.png', 'spare.png']) {
      const nowhere = files.find(({ url }) => url.endsWith(name));
      expect(nowhere?.placements).toEqual([]);
      expect(nowhere?.findings.map(({ id }) => id)).toEqual(['placed-nowhere']);
    }
    expect(files.some(({ url }) => url.includes('favicon'))).toBe(false);
  });

  it.each([
    ['reel.gif', 'image/gif', 120, 4, null],
    ['reel.webp', 'image/webp', 100, 3, null],
    [
      'reel.avif',
      'image/avif',
      96,
      5,
      'it is an animated AVIF of 5 frames, which cannot be decoded',
    ],
  ])('counts the frames of %s', (name, mediaType, side, frames, problem) => {
    const file = files.find(({ url }) => url.endsWith(name));
    const intrinsic = { width: side, height: side };
    expect(file).toMatchObject({ mediaType, intrinsic, frames, problem });
  });

  it('knows a picture whose bytes stand in the document', () => {
    const inline = files.find(({ url }) => url.startsWith('data:'));
    expect(inline).toMatchObject({ mediaType: 'image/svg+xml', intrinsic: null, transferBytes: 0 });
    expect(inline!.placements[0]).toMatchObject({
      selector: '#inline',
      slot: { width: 30, height: 20 },
    });
  });

  it('tells how each address was answered', () => {
    const answerOf = (name: string) => {
      const answers = files.flatMap((file) => file.answers.map((answer) => ({ file, ...answer })));
      return answers.find(({ url }) => new URL(url).pathname === name)!;
    };
    expect(answerOf('/museum/compass.svg')).toMatchObject({
      status: 200,
      declaredType: 'image/svg+xml',
      protocol: 'http/1.1',
      headers: { 'content-encoding': 'gzip', 'cache-control': 'max-age=3600' },
      file: { mediaType: 'image/svg+xml', intrinsic: null },
    });
    expect(answerOf('/museum/poster')).toMatchObject({
      declaredType: 'image/webp',
      headers: { vary: 'Accept', 'cache-control': 'no-cache', etag: '"poster-1"' },
      file: { mediaType: 'image/webp', intrinsic: { width: 100, height: 100 } },
    });
    expect(answerOf('/img/museum/plate.png').redirects).toEqual([
      'http://brindlebay.test/museum/old-plate',
    ]);
    const falseName = answerOf('/museum/false-name.png');
    expect(falseName).toMatchObject({
      declaredType: 'image/png',
      file: { mediaType: 'image/jpeg' },
    });
    expect(falseName.file.findings.map(({ id }) => id)).toContain('mislabelled');
    expect(answerOf('/img/museum/turned.jpg').file.contentHash).toBe(falseName.file.contentHash);
    // A compressed file is told by what it unpacks to, and by what crossed the network.
    expect(answerOf('/museum/compass.svg').file.bytes).toBe(
      readFileSync(join(pictures, 'img/museum/compass.svg')).length,
    );
  });

  it('tells which image did not come', () => {
    expect(missing).toEqual([
      {
        url: 'http://brindlebay.test/museum/gone.png',
        problem: 'returned 404',
        status: 404,
        pages: 1,
        page: 'http://brindlebay.test/museum/',
      },
    ]);
  });

  it('sweeps every slot of the page over all widths', () => {
    const flat = (width: number) => [{ from: 320, to: 2560, a: 0, b: width }];
    for (const [selector, width] of [
      // A slot of 200 × 200 that a picture of 3:2 covers.
      ['#cover', 300],
      ['#zoomed', 300],
      ['#painted', 200],
      ['#by-density', 300],
    ] as const)
      expect(exhibit(selector).slotCurve).toEqual(flat(width));
    expect(exhibit('#near >>> #within').slotCurve).toEqual(flat(90));
    expect(exhibit('#far >>> #strange').slotCurve).toEqual(flat(160));
    // A slot 340 px high: as long as the window is narrower, 510 px of 3:2 cover it.
    expect(exhibit('body > section > img').slotCurve).toEqual([
      { from: 320, to: 510, a: 0, b: 510 },
      { from: 511, to: 2560, a: 1, b: 0 },
    ]);
    expect(existsSync(join(cwd, '.zealous-lynx'))).toBe(true);
  });
});
