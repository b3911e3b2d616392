import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { headerValue } from '../../../src/core/trial/recording.js';
import { wireBody } from '../../../src/replay/wire-body.js';
import { allFixes } from '../../../src/tasks/trial/fixes/index.js';
import { contentHashOf } from '../../../src/images/hash.js';
import { temporaryFolder } from '../../support/folder.js';
import { madeRecording } from '../../support/made-recording.js';

const fix = (name: string) => allFixes.find((one) => one.name === name)!;
const home = 'http://bay.test/';
const html = (body: string) => ({ url: home, type: 'html' as const, body });

describe('each fix', () => {
  it('changes nothing on a page that has nothing for it', async () => {
    const { recording, tools } = madeRecording([html('<!doctype html><title>t</title>')], {
      largest: null,
    });
    for (const one of allFixes.filter(({ name }) => name !== 'http2')) {
      const { changed, recording: fixed } = await one.apply(recording, tools);
      expect([one.name, changed]).toEqual([one.name, 0]);
      if (one.name !== 'minify') expect(fixed.responses).toEqual(recording.responses);
    }
  });

  it('lazy: of the images, those that the first screen does not show', async () => {
    const { recording, tools, textAt } = madeRecording(
      [html('<img src="/a.png"><img src="b.png"><img loading="eager" src="c.png"><img>')],
      { firstScreen: [`${home}a.png`] },
    );
    const { recording: fixed, changed } = await fix('lazy').apply(recording, tools);
    expect([changed, textAt(fixed, home)]).toEqual([
      1,
      '<img src="/a.png"><img loading="lazy" src="b.png"><img loading="eager" src="c.png"><img>',
    ]);
  });

  it('early: the largest picture, where it is an element and where a style brings it', async () => {
    const page = '<html><head></head><body><img src="a.png" loading="lazy">';
    const largest = { selector: 'body > img', url: `${home}a.png` };
    const one = madeRecording([html(page)], { largest });
    const { recording: fixed } = await fix('early').apply(one.recording, one.tools);
    expect(one.textAt(fixed, home)).toBe(
      '<html><head></head><body><img fetchpriority="high" src="a.png">',
    );
    const styled = { selector: 'body > div', url: `${home}hero.png?a=1&b=2` };
    const other = madeRecording([html(page)], { largest: styled });
    const result = await fix('early').apply(other.recording, other.tools);
    expect(other.textAt(result.recording, home)).toContain(
      '<head><link rel="preload" as="image" href="http://bay.test/hero.png?a=1&amp;b=2" fetchpriority="high"></head>',
    );
  });

  it('defer and styles-first: the scripts of the head, and the styles behind them', async () => {
    const page =
      '<head><script src="a.js"></script><script src="m.js" type="module"></script><link rel="stylesheet" href="s.css"></head><body><script src="b.js"></script>';
    const { recording, tools, textAt } = madeRecording([html(page)]);
    const deferred = await fix('defer').apply(recording, tools);
    expect(textAt(deferred.recording, home)).toBe(
      page.replace('<script src="a', '<script defer src="a'),
    );
    const moved = await fix('styles-first').apply(recording, tools);
    expect(textAt(moved.recording, home)).toBe(
      '<head><link rel="stylesheet" href="s.css"><script src="a.js"></script><script src="m.js" type="module"></script></head><body><script src="b.js"></script>',
    );
  });

  it('flat-imports: a sheet with what it imports, addresses and media as they were', async () => {
    const sheet = (url: string, body: string) => ({
      url: home + url,
      type: 'style' as const,
      body,
    });
    const { recording, tools, textAt } = madeRecording([
      html(''),
      sheet('css/all.css', '@import "parts/a.css"; @import "parts/b.css" print;\np{color:red}'),
      sheet('css/parts/a.css', '@import "../c.css";a{background:url(k.png)}'),
      sheet('css/parts/b.css', 'b{color:blue}'),
      sheet('css/c.css', 'i{color:green}'),
    ]);
    const { recording: fixed, changed } = await fix('flat-imports').apply(recording, tools);
    expect(changed).toBe(2);
    expect(textAt(fixed, `${home}css/all.css`)?.replace(/\s+/g, ' ')).toBe(
      'i{color:green} a{background:url("http://bay.test/css/parts/k.png")} @media print { b{color:blue} } p{color:red}',
    );
  });

  it('minify and compress: texts, and what they weigh then', async () => {
    const style = `${'.kite { color: red; }\n'.repeat(200)}`;
    const { recording, tools, textAt } = madeRecording([
      html('<p>short'),
      { url: `${home}a.css`, type: 'style', body: style },
      { url: `${home}a.png`, type: 'image', body: Buffer.alloc(5_000) },
    ]);
    const small = await fix('minify').apply(recording, tools);
    expect(textAt(small.recording, `${home}a.css`)!.length).toBeLessThan(style.length / 2);
    const { recording: fixed, changed } = await fix('compress').apply(recording, tools);
    expect(changed).toBe(1);
    const [, css, png] = fixed.responses;
    const gzip = await wireBody(Buffer.from(style), 'gzip', 0);
    expect(css).toMatchObject({ encoding: 'gzip', wireBytes: gzip.length });
    expect(headerValue(css!.request.responseHeaders, 'vary')).toBe('accept-encoding');
    expect(png).toBe(recording.responses[2]);
  });

  it('lifetimes: all files, and not the document', async () => {
    const { recording, tools } = madeRecording([
      html('<p>'),
      { url: `${home}a.css`, type: 'style', body: 'a{}', headers: { 'cache-control': 'no-cache' } },
    ]);
    const { recording: fixed } = await fix('lifetimes').apply(recording, tools);
    expect(
      fixed.responses.map(({ request }) => headerValue(request.responseHeaders, 'cache-control')),
    ).toEqual(['', 'max-age=31536000, immutable']);
  });

  it('http2: hosts with TLS alone, and says which have none', async () => {
    const { recording, tools } = madeRecording([
      { url: 'https://bay.test/', type: 'html', body: '<p>' },
      { url: 'http://old.test/a.png', type: 'image', body: 'x' },
    ]);
    const { recording: fixed, changed, notes } = await fix('http2').apply(recording, tools);
    expect([changed, [...fixed.multiplexed]]).toEqual([1, ['bay.test']]);
    expect(notes).toEqual(['browsers speak HTTP/2 over TLS only, and old.test has none']);
  });

  it('without-hosts: its elements and its responses, subdomains among them', async () => {
    const { recording, tools, textAt } = madeRecording([
      html(
        '<script src="//tags.drift.test/t.js"></script><img src="/a.png"><iframe src="http://drift.test:8080/f"></iframe>',
      ),
      { url: 'http://tags.drift.test/t.js', type: 'script', body: '1' },
    ]);
    const without = { ...tools, hosts: ['drift.test'] };
    const {
      recording: fixed,
      changed,
      notes,
    } = await fix('without-hosts').apply(recording, without);
    expect([changed, textAt(fixed, home), notes]).toEqual([
      2,
      '<img src="/a.png">',
      ['1 response is no longer there'],
    ]);
    expect(fixed.responses).toHaveLength(1);
  });

  it('files: those of a folder, by their paths, those of other hosts below their names', async () => {
    const folder = temporaryFolder();
    mkdirSync(join(folder, 'cdn.test'));
    writeFileSync(join(folder, 'index.html'), '<p>mended');
    writeFileSync(join(folder, 'cdn.test', 'a.css'), 'a{color:red}');
    writeFileSync(join(folder, 'unused.txt'), '');
    const { recording, tools, textAt } = madeRecording([
      html('<p>old'),
      { url: 'http://cdn.test/a.css?v=3', type: 'style', body: 'a{}' },
    ]);
    const given = { ...tools, files: folder };
    const { recording: fixed, changed, notes } = await fix('files').apply(recording, given);
    expect([changed, textAt(fixed, home), textAt(fixed, 'http://cdn.test/a.css?v=3')]).toEqual([
      2,
      '<p>mended',
      'a{color:red}',
    ]);
    expect(notes).toEqual(['1 of 3 files have a path that the page requests nothing from']);
  });

  it('images, responsive and dimensions: what the refit has, where the original is the same', async () => {
    const [kite, tail] = [Buffer.from('kite'), Buffer.from('tail')];
    const small = Buffer.from('k');
    const refit = {
      folder: 'refit',
      sheets: [],
      rules: ':where(img){}',
      rewrites: [
        {
          from: `${home}kite.png`,
          to: 'kite.avif',
          files: [{ path: 'kite.avif', mediaType: 'image/avif' }],
        },
        {
          from: `${home}tail.png`,
          to: 'tail.avif',
          files: [{ path: 'tail.avif', mediaType: 'image/avif' }],
        },
      ],
      snippets: [
        {
          page: home,
          selector: 'body > img:nth-of-type(1)',
          text: '<picture><source srcset="/kite.avif"><img src="/kite.png" width="40" height="30" loading="lazy"></picture>',
        },
        {
          page: home,
          selector: 'body > aside > img',
          text: '<img src="/x.png" width="1" height="1">',
        },
      ],
      originals: new Map([
        [`${home}kite.png`, contentHashOf(kite)],
        [`${home}tail.png`, contentHashOf(Buffer.from('an older tail'))],
      ]),
      hashOf: () => contentHashOf(small),
      read: () => Promise.resolve(small),
      addressOf: (path: string) => home + path,
    };
    const { recording, tools, textAt } = madeRecording([
      html('<body><img src="kite.png"><img src="tail.png">'),
      { url: `${home}kite.png`, type: 'image', body: kite },
      { url: `${home}tail.png`, type: 'image', body: tail },
    ]);
    const given = { ...tools, refit };
    const files = await fix('images').apply(recording, given);
    expect(files.changed).toBe(1);
    expect(files.notes).toEqual([
      '1 image has changed since the survey of the refit, and stays as it is',
    ]);
    expect(textAt(files.recording, `${home}kite.png`)).toBe('k');
    expect(textAt(files.recording, `${home}kite.avif`)).toBe('k');
    expect(textAt(files.recording, `${home}tail.png`)).toBe('tail');
    const sized = await fix('dimensions').apply(recording, given);
    expect(sized.notes).toEqual(['1 element is made by scripts, and stays as it is']);
    const offered = await fix('responsive').apply(sized.recording, given);
    expect(textAt(offered.recording, home)).toBe(
      '<style>:where(img){}</style><body><picture><source srcset="/kite.avif"><img width="40" height="30" src="/kite.png"></picture><img src="tail.png">',
    );
    // The files that the markup found are not taken for originals that have changed.
    const both = await fix('images').apply(offered.recording, given);
    expect(both.notes).toEqual(files.notes);
    // On its own, too, the markup finds the files that it names; the original stays what it was.
    const alone = await fix('responsive').apply(recording, given);
    expect(textAt(alone.recording, `${home}kite.avif`)).toBe('k');
    expect(textAt(alone.recording, `${home}kite.png`)).toBe('kite');
    const placements = [
      {
        ...{ kind: 'img' as const, selector: 'body > img:nth-of-type(1)', left: 0, top: 0 },
        ...{ url: `${home}kite.png`, slot: { width: 40, height: 30 } },
      },
    ];
    const view = { width: 1280, height: 800, density: 1 };
    // The headers stay: 100 bytes beside the four of the original.
    expect(alone.requests!({ placements, view })).toEqual(
      new Map([[`${home}kite.png`, { bytes: 101 }]]),
    );
  });

  it('sheet: elements in place of images, styles in the page’s own style sheet, one request', async () => {
    const element = (selector: string, name: string) => ({
      ...{ page: home, selector, text: `<span class="${name}"></span>` },
    });
    const files = new Map([
      ['sheets/front.css', '.sail { background: url("front.webp") }'],
      ['sheets/front.webp', 'both kites'],
    ]);
    const refit = {
      ...{ folder: 'refit', rules: '', rewrites: [], snippets: [], originals: new Map() },
      sheets: [
        {
          style: 'sheets/front.css',
          files: [{ path: 'sheets/front.webp', mediaType: 'image/webp' }],
          elements: [
            element('body > p > img', 'sail'),
            element('body > picture > img', 'knot'),
            element('body > aside > img', 'tail'),
          ],
        },
      ],
      hashOf: (path: string) => contentHashOf(Buffer.from(files.get(path)!)),
      read: (path: string) => Promise.resolve(Buffer.from(files.get(path)!)),
      addressOf: (path: string) => home + path,
    };
    const page =
      '<body><p><img src="sail.png"></p><picture><source srcset="k.webp"><img src="knot.png"></picture>';
    const icon = (name: string) => ({ url: home + name, type: 'image' as const, body: name });
    const { recording, tools, textAt } = madeRecording([
      html(page),
      { url: `${home}css/site.css`, type: 'style', body: 'p{}' },
      icon('sail.png'),
      icon('k.webp'),
    ]);
    const outcome = await fix('sheet').apply(recording, { ...tools, refit });
    expect(outcome.changed).toBe(2);
    expect(outcome.notes).toEqual(['1 element is made by scripts, and stays as it is']);
    expect(textAt(outcome.recording, home)).toBe(
      '<body><p><span class="sail"></span></p><span class="knot"></span>',
    );
    expect(textAt(outcome.recording, `${home}css/site.css`)).toBe(
      'p{}\n.sail { background: url("http://bay.test/sheets/front.webp") }',
    );
    expect(textAt(outcome.recording, `${home}sheets/front.webp`)).toBe('both kites');
    const view = { width: 1280, height: 800, density: 1 };
    expect(Object.fromEntries(outcome.requests!({ placements: [], view }))).toEqual({
      [`${home}sail.png`]: { bytes: 10 },
      [`${home}k.webp`]: 'gone',
      [`${home}knot.png`]: 'gone',
    });
    // Where there is no style sheet, the document has the styles.
    const bare = madeRecording([html(page)]);
    const styled = await fix('sheet').apply(bare.recording, { ...bare.tools, refit });
    expect(bare.textAt(styled.recording, home)).toContain('<style>.sail { background: url("http');
  });
});
