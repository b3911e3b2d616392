import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { textFactsOf } from '../../src/texts/text-facts.js';

const factsOf = (text: string, kind: 'html' | 'style' | 'script' | 'data') =>
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

  it('minifies nothing that it cannot read, and no documents', async () => {
    expect((await factsOf('function (', 'script')).minified).toBeNull();
    expect((await factsOf('{ "a": ', 'data')).minified).toBeNull();
    expect((await factsOf('plain words', 'data')).minified).toBeNull();
    expect((await factsOf('<p>  x  </p>', 'html')).minified).toBeNull();
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
