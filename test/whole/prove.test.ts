import { spawn } from 'node:child_process';
import { text } from 'node:stream/consumers';
import { beforeAll, describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { scene } from '../support/pictures.js';
import { run } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';

interface ProofDocument {
  readonly holds: boolean;
  readonly views: readonly {
    readonly view: string;
    readonly problem: string | null;
    readonly after: { readonly url: string; readonly pixels: number };
  }[];
  readonly absent: readonly string[];
}

const offered = 'srcset="/img/c-400.jpg 400w, /img/c-800.jpg 800w, /img/c-1600.jpg 1600w"';
const element = (attributes: string) =>
  `<img id="wide" class="photo" src="/img/c-1600.jpg" ${attributes} width="1600" height="1000" alt="">`;

let cwd: string;

beforeAll(async () => {
  cwd = temporaryFolder(() => {});
  const picture = (width: number) => scene(width, (width * 5) / 8);
  writeFiles(cwd, {
    'zealous-lynx.config.yaml':
      'views:\n  - { name: phone, width: 390, height: 844, density: 3, touch: true, share: 0.5 }\n  - { name: laptop, width: 1366, height: 768, share: 0.5 }\n',
    'site/index.html': `<!doctype html><meta name="viewport" content="width=device-width"><style>body{margin:8px}.photo{width:50vw;height:auto}
      @media (max-width: 600px) { #desk { display: none } }</style>
      <p>${element(`${offered} sizes="100vw"`)}</p><p>after</p>
      <script>if (innerWidth > 600) document.body.insertAdjacentHTML('beforeend', '<img id="desk" src="/img/c-400.jpg" width="300" height="188">')</script>`,
    'site/img/c-400.jpg': await picture(400).jpeg().toBuffer(),
    'site/img/c-800.jpg': await picture(800).jpeg().toBuffer(),
    'site/img/c-1600.jpg': await picture(1_600).jpeg().toBuffer(),
    'new/img/c-800.avif': await picture(800).avif({ effort: 0 }).toBuffer(),
    'secret.avif': await picture(800).avif({ effort: 0 }).toBuffer(),
    'sizes.html': element(`${offered} sizes="50vw"`),
    'soft.html': '<img class="photo" src="/img/c-400.jpg" width="400" height="250" alt="">',
    'bare.html': '<img src="/img/c-1600.jpg" alt="">',
    'picture.html': `<picture><source type="image/avif" srcset="/img/c-800.avif">${element('')}</picture>`,
    'outside.html': '<img class="photo" src="/..%2fsecret.avif" width="1600" height="1000">',
    'text.html': '<p>no image</p>',
    'mended.html': '<img class="mended" src="/img/c-1600.jpg" width="1600" height="1000" alt="">',
    'mended.css': '.mended { width: 50vw; height: auto }\n',
  });
});

async function prove(selector: string, file: string, ...more: readonly string[]) {
  const { status, stdout } = await run(['prove', 'site', selector, file, '--json', ...more], {
    cwd,
  });
  const document = JSON.parse(stdout) as ProofDocument;
  expect(schemaErrors('prove', document)).toEqual([]);
  expect(status).toBe(document.holds ? 0 : 1);
  return document;
}

describe('prove', () => {
  it('chooses the candidate that fits, though the page holds a larger one already', async () => {
    const { holds, views } = await prove('#wide', 'sizes.html');
    expect(holds).toBe(true);
    expect(views.map(({ view, after }) => [view, after.pixels])).toEqual([
      ['phone', 800],
      ['laptop', 800],
    ]);
    expect(views[0]!.after.url).toBe('http://site.localhost/img/c-800.jpg');
  });

  it('finds what gets softer, and what no longer fits its place', async () => {
    const soft = await prove('#wide', 'soft.html');
    expect(soft.views.map(({ problem }) => problem)).toEqual([
      null,
      expect.stringMatching(/^it gets softer: 400 pixels across where 683 are shown$/),
    ]);
    const bare = await prove('#wide', 'bare.html');
    for (const { problem } of bare.views) expect(problem).toMatch(/^its box changes from \d+×\d+/);
  });

  it('serves files that the site does not have yet, and nothing outside their folder', async () => {
    const without = await prove('#wide', 'picture.html');
    expect(without.views[0]!.problem).toMatch(/^its file does not arrive .*c-800\.avif\)$/);
    const within = await prove('#wide', 'picture.html', '--files', 'new');
    expect(within.views.map(({ problem, after }) => [problem, after.pixels])).toEqual([
      [null, 800],
      [null, 800],
    ]);
    const outside = await prove('#wide', 'outside.html', '--files', 'new');
    expect(outside.views[0]!.problem).toMatch(/^its file does not arrive/);
  });

  it('takes style rules along that go live with the markup', async () => {
    expect((await prove('#wide', 'mended.html')).holds).toBe(false);
    expect((await prove('#wide', 'mended.html', '--styles', 'mended.css')).holds).toBe(true);
  });

  it('says in which views the element is not there', async () => {
    const { holds, views, absent } = await prove('#desk', 'soft.html');
    expect([holds, absent]).toEqual([false, ['phone']]);
    expect(views.map(({ view }) => view)).toEqual(['laptop']);
  });

  it('prints a row for each view, and what does not hold in words', async () => {
    const { status, stdout } = await run(['prove', 'site', '#wide', 'soft.html'], { cwd });
    expect(status).toBe(1);
    expect(stdout).toMatch(
      /^phone +holds +195×122 +\/img\/c-\d+\.jpg, \d+ px +\/img\/c-400\.jpg, 400 px$/m,
    );
    expect(stdout).toContain('! in laptop, it gets softer: 400 pixels across where 683 are shown');
    expect(stdout).toMatch(/Does not hold in 1 of 2 views\.\n$/);
  });

  it.each([
    ['text.html', '#wide', 2, /the markup is not one <img>, or one <picture> with its <img>/],
    ['none.html', '#wide', 2, /cannot read the markup: .*none\.html/],
    ['sizes.html', '#nothing', 2, /has no <img> at #nothing in any view/],
    ['sizes.html', 'iframe >>> img', 2, /inside a frame or a shadow root cannot be tried/],
  ])('refuses %s for %s', async (file, selector, expected, words) => {
    const { status, stderr } = await run(['prove', 'site', selector, file], { cwd });
    expect(status).toBe(expected);
    expect(stderr).toMatch(words);
  });

  it('reads markup that another program writes', async () => {
    const program = new URL('../../dist/bundle/cli/main.js', import.meta.url).pathname;
    const child = spawn(process.execPath, [program, 'prove', 'site', '#wide', '--json'], { cwd });
    child.stdin.end(element(`${offered} sizes="50vw"`));
    expect((JSON.parse(await text(child.stdout)) as ProofDocument).holds).toBe(true);
  });
});
