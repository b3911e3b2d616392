import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { beforeAll, describe, expect } from 'vitest';
import { run, runJson } from '../support/program.js';
import { photograph } from '../support/pictures.js';
import { attack, page, surveyed } from './attack.js';

interface Ranked {
  readonly images: readonly {
    readonly url: string;
    readonly intrinsic: { readonly width: number };
    readonly placements: readonly {
      readonly selector: string;
      readonly rendered: { readonly width: number; readonly height: number };
    }[];
  }[];
}

let picture: Buffer;
beforeAll(async () => {
  picture = await photograph(400, 300).jpeg().toBuffer();
});

const image = '<img id="kite" src="/kite.jpg" width="120" height="90" alt="A kite">';

/** Surveys a page and says what was found of its one image. */
async function measured(body: string, head = '', headers: Readonly<Record<string, string>> = {}) {
  const { document, cwd, seconds } = await surveyed({
    '/': { body: page(body, head), headers },
    '/kite.jpg': { type: 'image/jpeg', body: picture },
  });
  expect(document.pages.map(({ error }) => error)).toEqual([undefined]);
  const { images } = await runJson<Ranked>(['rank', '--by', 'image'], { cwd });
  return { images, seconds };
}

/** That the image has its numbers, whatever the page does about it. */
function holds(name: string, body: string, head = '', headers = {}): void {
  attack('held', name, async () => {
    const { images } = await measured(body, head, headers);
    expect(images).toHaveLength(1);
    expect(images[0]!.intrinsic.width).toBe(400);
    expect(images[0]!.placements.map(({ rendered }) => rendered)).toEqual([
      { width: 120, height: 90 },
    ]);
  });
}

const shadowing = [
  ...['children', 'classList', 'id', 'style', 'attributes', 'parentElement', 'parentNode'],
  ...['getBoundingClientRect', 'localName', 'tagName', 'shadowRoot', 'querySelectorAll'],
  ...['offsetWidth', 'isConnected', 'getRootNode', 'ownerDocument', 'getAttribute', 'closest'],
];

describe('pages that lie', () => {
  holds(
    'form fields named like properties of elements, around an image',
    `<form>${shadowing.map((name) => `<input name="${name}">`).join('')}${image}</form>`,
  );
  holds(
    'ids and names like properties of the document',
    `${['body', 'images', 'documentElement', 'querySelectorAll', 'styleSheets', 'createTreeWalker']
      .map((name) => `<form name="${name}" id="${name}"></form>`)
      .join('')}${image}`,
  );
  holds(
    'prototypes with other methods',
    image,
    `<script>
      for (const kind of [Element, HTMLElement, HTMLImageElement, Node, Document, Array, Map, Set, Promise, String])
        for (const name of Object.getOwnPropertyNames(kind.prototype))
          if (name !== 'constructor') try { Object.defineProperty(kind.prototype, name, { get: () => () => 7 }); } catch {}
      window.getComputedStyle = () => ({}); window.performance = null; JSON.stringify = () => 'x';
    </script>`,
  );
  holds(
    'a document of proxies',
    image,
    `<script>
      const liar = (of) => new Proxy(of, { get: () => liar(function () {}) });
      window.Image = liar(Image); window.requestAnimationFrame = liar(() => {}); window.matchMedia = liar(matchMedia);
      Object.defineProperty(window, 'devicePixelRatio', { get: () => 'many' });
      Object.defineProperty(window, 'innerWidth', { get: () => -1 });
    </script>`,
  );
  holds('no script may run (content security policy)', image, '', {
    'content-security-policy': 'sandbox',
  });
  holds('nothing but images may be loaded', image, '', {
    'content-security-policy': "default-src 'none'; img-src 'self'; sandbox",
  });
  holds(
    'a document that is taken away and put back while it loads',
    image,
    `<script>const root = document.documentElement; root.remove(); setTimeout(() => document.append(root), 700);</script>`,
  );

  attack('held', 'an image in a frame where no script may run', async () => {
    const { document, cwd } = await surveyed({
      '/': { body: page('<iframe sandbox src="/frame" width="300" height="200"></iframe>') },
      '/frame': { body: page(image) },
      '/kite.jpg': { type: 'image/jpeg', body: picture },
    });
    expect(document.pages.map(({ error }) => error)).toEqual([undefined]);
    const { images } = await runJson<Ranked>(['rank', '--by', 'image'], { cwd });
    expect(images[0]!.placements[0]!.rendered).toEqual({ width: 120, height: 90 });
  });

  attack('told', 'markup for a page where no script may run', async () => {
    const { cwd, site } = await surveyed({
      '/': { body: page(image), headers: { 'content-security-policy': 'sandbox' } },
      '/kite.jpg': { type: 'image/jpeg', body: picture },
    });
    writeFileSync(join(cwd, 'kite.html'), image);
    const { status, stderr } = await run(['prove', `${site.origin}/`, 'img', 'kite.html'], { cwd });
    expect([status, stderr]).toEqual([
      3,
      expect.stringContaining('no script may run in it, so markup cannot be tried in it'),
    ]);
  });

  attack('told', 'a document that is taken away for good', async () => {
    const { document } = await surveyed({
      '/': { body: page('<script>document.documentElement.remove()</script>') },
    });
    expect(document.pages).toHaveLength(1);
  });
});
