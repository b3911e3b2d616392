import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { beforeAll, describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { scene } from '../support/pictures.js';
import { run, twoViews } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';

interface SnippetsDocument {
  readonly snippets: readonly {
    readonly places: readonly { readonly selector: string }[];
    readonly before: string | null;
    readonly text: string;
    readonly proved: boolean;
  }[];
  readonly withheld: readonly {
    readonly places: readonly { readonly selector: string }[];
    readonly reason: string;
  }[];
  readonly untried: readonly string[];
}

const page = `<!doctype html><meta name="viewport" content="width=device-width"><style>
  body { margin: 8px } img { max-width: 100% }
  .card { display: block } .card > img { width: 120px; height: 80px }
  #wide { width: calc(100vw - 16px); height: auto }
</style>
<p>before</p>
<p><img id="plain" class="photo" data-kite="1" src="/img/a.jpg" width="300" height="200" alt="A kite"></p>
<div class="card"><img id="child" src="/img/b.jpg" alt=""></div>
<p><img id="wide" src="/img/c-800.jpg" srcset="/img/c-400.jpg 400w, /img/c-800.jpg 800w, /img/c-1600.jpg 1600w"
  sizes="25vw" width="1600" height="1000" alt=""></p>
<p>after</p>
<script>setTimeout(() => { document.getElementById('late').innerHTML = '<img src="/img/a.jpg" width="90" height="60">' }, 50)</script>
<div id="late"></div>`;

let cwd: string;
let output: string;
let told: SnippetsDocument;

const snippetFor = (selector: string) =>
  told.snippets.find(({ places }) => places.some((place) => place.selector === selector));

beforeAll(async () => {
  cwd = temporaryFolder(() => {});
  const picture = (width: number, height: number) =>
    scene(width, height).jpeg({ quality: 95 }).toBuffer();
  writeFiles(cwd, {
    'site/index.html': page,
    'site/img/a.jpg': await picture(1_200, 800),
    'site/img/b.jpg': await picture(900, 600),
    'site/img/c-400.jpg': await picture(400, 250),
    'site/img/c-800.jpg': await picture(800, 500),
    'site/img/c-1600.jpg': await picture(1_600, 1_000),
  });
  await run(['survey', 'site', ...twoViews], { cwd });
  const call = ['refit', '--out', 'new', '--review', '0'];
  const { status, stdout, stderr } = await run(call, { cwd, env: { ZEALOUS_LYNX_PROVE: 'true' } });
  expect([status, stderr]).toEqual([0, expect.any(String)]);
  output = stdout;
  told = JSON.parse(readFileSync(join(cwd, 'new/snippets.json'), 'utf8')) as SnippetsDocument;
});

describe('markup that refit has tried in its page', () => {
  it('is handed out where it holds, with everything that the element had', () => {
    expect(schemaErrors('snippets', told)).toEqual([]);
    const plain = snippetFor('#plain')!;
    expect(plain.proved).toBe(true);
    expect(plain.before).toBe(
      '<img id="plain" class="photo" data-kite="1" src="/img/a.jpg" width="300" height="200" alt="A kite">',
    );
    expect(plain.text).toMatch(/<img id="plain" class="photo" data-kite="1" src="[^"]+"/);
    expect(snippetFor('#late > img')?.proved).toBe(true);
  });

  it('is withheld where a style sheet no longer finds its element, with what would move', () => {
    expect(snippetFor('#child')).toBeUndefined();
    const withheld = told.withheld.find(({ places }) => places[0]!.selector === '#child');
    expect(withheld!.reason).toMatch(
      /in (?:phone|laptop), its box changes from 120×80 .* to \d+×\d+/,
    );
    expect(readFileSync(join(cwd, 'new/snippets.md'), 'utf8')).toContain('its box changes from');
    expect(output).toContain('1 element has no snippet: snippets.md says why');
  });

  it('gives a site that offers widths the sizes of its slot, and leaves its candidates alone', () => {
    const { text, proved } = snippetFor('#wide')!;
    expect(proved).toBe(true);
    expect(text).toContain('/img/c-400.jpg 400w, /img/c-800.jpg 800w, /img/c-1600.jpg 1600w');
    expect(text).toMatch(/sizes="\(min-resolution: 2\.5dppx\).*calc\(100vw - 16px\)"/);
  });
});
