import { load } from 'cheerio';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cssString } from '../../../src/core/findings/code.js';
import { findingKind } from '../../../src/core/findings/index.js';
import { asCodeBlock } from '../../../src/output/markdown/markdown.js';

const codeOf = (id: string, data: object) => findingKind(id)!.code!(data).text;
const url = 'http://bay.test/a.js?b=1&c="><script>';

describe('the code of findings', () => {
  it('is what to write into the document or the style sheet', () => {
    expect(codeOf('blocking-script', { url: 'http://bay.test/a.js' })).toBe(
      '<script src="http://bay.test/a.js" defer></script>',
    );
    expect(codeOf('import-chain', { url: 'http://bay.test/a.css' })).toBe(
      '<link rel="stylesheet" href="http://bay.test/a.css">',
    );
    expect(codeOf('late-style', { sheets: ['http://bay.test/a.css'] })).toBe(
      '<link rel="stylesheet" href="http://bay.test/a.css">\n<!-- the scripts -->',
    );
    expect(codeOf('font-preload', { font: 'http://bay.test/a.woff2' })).toBe(
      '<link rel="preload" as="font" href="http://bay.test/a.woff2" crossorigin>',
    );
    expect(codeOf('hidden-text', { families: ['Bay Sans'] })).toBe(
      '@font-face { font-family: "Bay Sans"; font-display: swap; /* and what it has */ }',
    );
    expect(codeOf('old-font', { url: 'http://bay.test/fonts/a.ttf?v=2' })).toBe(
      'src: url("/fonts/a.woff2") format("woff2"),\n  url("/fonts/a.ttf?v=2"); /* for old browsers alone */',
    );
  });

  it('ends no attribute, string or fence by what a page named', () => {
    const $ = load(codeOf('blocking-script', { url }), {}, false);
    expect($('script').length).toBe(1);
    expect($('script').attr('src')).toBe(url);
    expect(cssString('a"; } b { c\\\n')).toBe('"a\\22 ; } b { c\\5c \\a "');
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(cssString(text)).toMatch(/^"(?:[^"\\\n]|\\[0-9a-f]{1,6} )*"$/);
      }),
    );
    const block = asCodeBlock({ language: 'html', text: '```\n# title\n````' });
    expect(block.split('\n')[0]).toBe('`````html');
    expect(block.split('\n').at(-1)).toBe('`````');
  });
});
