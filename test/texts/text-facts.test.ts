import { readFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { asWoff2, subsetBytes } from '../../src/texts/font-facts.js';
import { textFactsOf } from '../../src/texts/text-facts.js';

const factsOf = (text: string, kind: 'html' | 'style' | 'script' | 'data' | 'vector') =>
  textFactsOf('x', Buffer.from(text), kind);

describe('textFactsOf', () => {
  it('really compresses', async () => {
    const text = 'Kites over Brindle Bay. '.repeat(400);
    const { bytes, gzip, brotli } = await factsOf(text, 'html');
    expect(bytes).toBe(text.length);
    expect(gzip).toBe(gzipSync(text, { level: 9 }).length);
    expect(brotli).toBeLessThan(gzip);
  });

  it.each([
    ['.a {\n  color: #ff0000; /* kite */\n}\n', 'style', '.a{color:red}\n'],
    ['function fly(height) {\n  return height + 1; // metres\n}\n', 'script', null],
    ['{ "kites": [ 1, 2 ] }', 'data', '{"kites":[1,2]}'],
    ['<!doctype html>\n<p>  Kites  </p>\n<!-- bay -->\n', 'html', '<!doctype html><p>Kites'],
    [
      '<svg xmlns="http://www.w3.org/2000/svg"><!-- bay --><path d="M 0.0000 0.0000 L 9.0000 9.0000"/></svg>',
      'vector',
      '<svg xmlns="http://www.w3.org/2000/svg"><path d="m0 0 9 9"/></svg>',
    ],
  ] as const)('really minifies: %s', async (text, kind, expected) => {
    const { minified } = await factsOf(text, kind);
    expect(minified!.bytes).toBeLessThan(text.length);
    if (expected !== null) expect(minified!.bytes).toBe(expected.length);
    const again = await factsOf(expected ?? text, kind);
    if (expected !== null) expect(again.minified!.bytes).toBe(expected.length);
  });

  it('keeps licences', async () => {
    const licence = `/*! ${'kite licence '.repeat(20)}*/`;
    const { minified } = await factsOf(`${licence}\nlet   up  =  1;`, 'script');
    expect(minified!.bytes).toBeGreaterThan(licence.length);
  });

  it('minifies nothing that it cannot read', async () => {
    expect((await factsOf('function (', 'script')).minified).toBeNull();
    expect((await factsOf('{ "a": ', 'data')).minified).toBeNull();
    expect((await factsOf('plain words', 'data')).minified).toBeNull();
    expect((await factsOf('<svg><g></svg>', 'vector')).minified).toBeNull();
    const long = `<svg xmlns="http://www.w3.org/2000/svg"><!--${'x'.repeat(1_000_001)}--></svg>`;
    expect((await factsOf(long, 'vector')).minified).toBeNull();
  });

  it('tells where the rules of a style sheet are, and not those of frames', async () => {
    const css =
      '/* kite */ .a { top: 0 } @media print { .b, .c { top: 1px } .d { & e { top: 2px } } } @keyframes fly { from { top: 0 } } .broken {';
    const { rules, units } = await factsOf(css, 'style');
    const texts = Array.from({ length: rules!.length / 2 }, (_, at) =>
      css.slice(rules![2 * at], rules![2 * at + 1]),
    );
    expect(units).toBe(css.length);
    expect(texts).toEqual([
      '.a { top: 0 }',
      '.b, .c { top: 1px }',
      '.d { & e { top: 2px } }',
      '.broken {',
    ]);
  });

  it('tells where a script writes into its document', async () => {
    const script =
      'const write = 1;\ndocument.write("a"); document . write; document.writeln ("b");';
    const { writes } = await factsOf(script, 'script');
    expect(writes).toEqual([
      script.indexOf('document.write("'),
      script.indexOf('document.writeln'),
    ]);
  });

  it('knows the formats of fonts by their bytes, and makes WOFF2 and subsets of them', async () => {
    const font = readFileSync('/usr/share/fonts/truetype/dejavu/DejaVuSans.ttf');
    const { font: facts } = await textFactsOf('x', font, 'font');
    expect(facts!.format).toBe('TrueType');
    const whole = await asWoff2(font);
    const some = await subsetBytes(font, 'Brindle Bay');
    expect(whole!).toBeLessThan(font.length / 2);
    expect(some!).toBeLessThan(whole! / 10);
    const noFont = await textFactsOf('x', Buffer.from('<h1>404</h1>'), 'font');
    expect(noFont.font!.format).toBeNull();
    expect(await asWoff2(Buffer.from('<h1>404</h1>'))).toBeNull();
  });

  it('counts what is embedded, if it is large', async () => {
    const file = (type: string, length: number) => `data:${type};base64,${'A'.repeat(length)}`;
    const { embedded } = await factsOf(
      `<img src="${file('image/png', 2_000)}"><style>@font-face{src:url(${file('font/woff2', 1_500)})}</style><img src="${file('image/gif', 60)}">data: is a word`,
      'html',
    );
    expect(embedded).toEqual({
      count: 2,
      bytes: file('image/png', 2_000).length + file('font/woff2', 1_500).length,
    });
    const long = await factsOf('data:image/png'.repeat(50_000), 'html');
    expect(long.embedded.count).toBe(0);
  });
});
