import { gzipSync } from 'node:zlib';
import { beforeAll, describe, expect } from 'vitest';
import { runJson } from '../support/program.js';
import { photograph } from '../support/pictures.js';
import { attack, page, surveyed } from './attack.js';

let picture: Buffer;
beforeAll(async () => {
  picture = await photograph(40, 30).jpeg().toBuffer();
});

interface Ranked {
  readonly images: readonly { readonly url: string }[];
}

const jpeg = () => ({ type: 'image/jpeg', body: picture });

/** A page beside which a sound one is surveyed, which must come to no harm. */
async function beside(body: string, more: Parameters<typeof surveyed>[0] = {}) {
  const outcome = await surveyed({
    '/': { body: page('<a href="/bad">bad</a><a href="/good">good</a>') },
    '/bad': { body },
    '/good': { body: page('<img src="/kite.jpg" width="20" height="15" alt="">') },
    '/kite.jpg': jpeg(),
    ...more,
  });
  const { pages } = outcome.document;
  const error = (path: string) => pages.find(({ url }) => new URL(url).pathname === path)?.error;
  expect(error('/good')).toBeUndefined();
  const { images } = await runJson<Ranked>(['rank', '--by', 'image'], { cwd: outcome.cwd });
  expect(images.map(({ url }) => new URL(url).pathname)).toContain('/kite.jpg');
  return { ...outcome, error: error('/bad'), images };
}

const times = (count: number, part: (at: number) => string) =>
  Array.from({ length: count }, (_, at) => part(at)).join('');

/** 50 s are what a page may take: 30 to load, 20 to be measured. */
const longest = 75;

describe('pages that eat', () => {
  attack(
    'bounded',
    '100,000 images in one parent',
    async () => {
      const body = page(times(100_000, () => '<img src="/kite.jpg" width="9" height="9">'));
      const { error, seconds } = await beside(body);
      // A busy machine may be too slow for it; then the page is told, and the others go on.
      expect(error).toMatch(/^only 5,000 of its images were measured|did not respond for 50 s/);
      expect(seconds).toBeLessThan(2 * longest);
    },
    300,
  );

  attack('bounded', '200,000 links', async () => {
    const body = page(times(200_000, (at) => `<li><a href="/x/${at}">x</a>`));
    const { error, seconds } = await surveyedOnly(body, ['--pages', '2']);
    expect(error).toMatch(/^only 5,000 of its links were read|did not respond for 50 s/);
    expect(seconds).toBeLessThan(2 * longest);
  });

  attack('held', '10 MB of HTML', async () => {
    const { error, seconds } = await beside(page(`<p>${'kites and wind '.repeat(700_000)}</p>`));
    expect(error).toBeUndefined();
    expect(seconds).toBeLessThan(longest);
  });

  attack('held', 'a style sheet with 100,000 rules', async () => {
    const rules = times(100_000, (at) => `.a${at} > .b:hover{background:url(/k.png?${at})}`);
    const { error, seconds } = await beside(page('<p class="a1">x', `<style>${rules}</style>`));
    expect(error).toBeUndefined();
    expect(seconds).toBeLessThan(longest);
  });

  attack('bounded', 'a page that grows whenever it is scrolled', async () => {
    const grow = `<script>addEventListener('scroll', () => { for (let i = 0; i < 50; i++) document.body.append(Object.assign(document.createElement('p'), { textContent: 'more', style: 'height:200px' })); });</script>`;
    const { error } = await beside(page(`<p style="height:5000px">x${grow}`));
    expect(error).toBeUndefined();
  });

  attack('held', 'a storm of addresses by pushState', async () => {
    const storm = `<script>let n = 0; setInterval(() => history.pushState({}, '', '/bad?' + n++), 1);</script>`;
    const { document } = await beside(page(`<p>x${storm}`));
    expect(document.pages.length).toBeLessThan(6);
  });

  for (const delay of [0, 5, 60])
    attack(
      'told',
      `a page that reloads itself for ever, after ${delay} ms`,
      async () => {
        const reload = `<script>setTimeout(() => location.reload(), ${delay})</script>`;
        const { error, seconds } = await beside(page(`<p>x${reload}`));
        // How often it was tried depends on how far each attempt came; it may be measured, with its curves or without.
        expect(error ?? 'measured').toMatch(
          /^(measured|it reloaded itself, or went on to another page, while it was measured(, (twice|3 times)|: its slots have no curves)?)$/,
        );
        // It is visited anew, because a page that left once may stay.
        expect(seconds).toBeLessThan(2 * longest);
      },
      300,
    );

  attack(
    'bounded',
    'an endless script',
    async () => {
      const { error } = await beside(page('<p>x<script>onload = () => { for (;;); }</script>'), {});
      expect(error).toMatch(/did not respond/);
    },
    300,
  );

  attack(
    'bounded',
    'a canvas of gigabytes',
    async () => {
      const eat = `<script>const all = []; for (let i = 0; i < 200; i++) { const c = document.createElement('canvas'); c.width = c.height = 8000; c.getContext('2d').fillRect(0, 0, 8000, 8000); all.push(c); }</script>`;
      await beside(page(`<p>x${eat}`));
    },
    300,
  );

  attack(
    'bounded',
    'a WebAssembly memory of gigabytes',
    async () => {
      const eat = `<script>const all = []; for (let i = 0; i < 8; i++) { const m = new WebAssembly.Memory({ initial: 16000, maximum: 16000 }); new Uint8Array(m.buffer).fill(7); all.push(m); }</script>`;
      await beside(page(`<p>x${eat}`));
    },
    300,
  );

  attack(
    'bounded',
    'a kilobyte of HTML that becomes gigabytes',
    async () => {
      // A megabyte of zeros is a kilobyte; zipped twice over, it is what a server can send for nothing.
      const bomb = gzipSync(Buffer.alloc(400_000_000, '<p>'), { level: 9 });
      await beside('', {
        '/bad': { body: bomb, headers: { 'content-encoding': 'gzip' } },
      });
    },
    300,
  );

  attack(
    'bounded',
    'a style sheet that becomes gigabytes',
    async () => {
      const bomb = gzipSync(Buffer.alloc(400_000_000, 'a{color:red}'), { level: 9 });
      await beside(page('<p>x', '<link rel="stylesheet" href="/bomb.css">'), {
        '/bomb.css': { type: 'text/css', body: bomb, headers: { 'content-encoding': 'gzip' } },
      });
    },
    300,
  );

  attack('told', 'an image that asks for a password', async () => {
    const { error, seconds } = await beside(
      page('<img src="/closed.jpg" width="20" height="20">'),
      {
        '/closed.jpg': { status: 401, headers: { 'www-authenticate': 'Basic realm="kites"' } },
      },
    );
    expect(error).toBeUndefined();
    expect(seconds).toBeLessThan(30);
  });

  attack('bounded', 'pages that name ever other canonical addresses', async () => {
    let made = 0;
    const { document, site } = await surveyed(
      {
        '/': { body: page(times(30, (at) => `<a href="/p/${at}">x</a>`)) },
        ...Object.fromEntries(
          Array.from({ length: 3_000 }, (_, at) => [
            `/p/${at}`,
            () => ({
              body: page(
                `<p>${at}</p>${times(5, (more) => `<a href="/p/${100 + ((at * 7 + more * 13) % 2_900)}">x</a>`)}`,
                `<link rel="canonical" href="/p/${100 + (made++ % 2_900)}">`,
              ),
            }),
          ]),
        ),
      },
      ['--pages', '4'],
    );
    expect(document.pages.length).toBeLessThanOrEqual(4);
    expect(site.asked.filter((path) => path.startsWith('/p/')).length).toBeLessThan(40);
  });
});

async function surveyedOnly(body: string, more: readonly string[]) {
  const outcome = await surveyed({ '/': { body } }, more);
  return { ...outcome, error: outcome.document.pages[0]?.error };
}
