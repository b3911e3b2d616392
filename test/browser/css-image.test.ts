import { afterEach, describe, expect, it, vi } from 'vitest';
import { imageOf, layersOf } from '../../src/browser/in-page/css-image.js';

afterEach(() => vi.unstubAllGlobals());

function onScreen(density: number): void {
  vi.stubGlobal('devicePixelRatio', density);
}

describe('layersOf', () => {
  it('cuts at commas between layers, and at no others', () => {
    const value = 'url("http://a.test/a,b.png"), linear-gradient(rgb(1, 2, 3), red), none';
    expect(layersOf(value)).toEqual([
      'url("http://a.test/a,b.png")',
      'linear-gradient(rgb(1, 2, 3), red)',
      'none',
    ]);
  });
});

describe('imageOf', () => {
  it('reads an address however it is quoted', () => {
    for (const text of [
      'url("http://a.test/x.png")',
      "url('http://a.test/x.png')",
      'url(http://a.test/x.png)',
    ])
      expect(imageOf(text)).toEqual({ url: 'http://a.test/x.png', density: 1 });
    expect(imageOf('linear-gradient(red, blue)')).toBeUndefined();
    expect(imageOf('none')).toBeUndefined();
  });

  const set = 'image-set(url("http://a.test/1.png") 1dppx, url("http://a.test/2.png") 2dppx)';

  it.each([
    [1, '1.png', 1],
    [1.5, '2.png', 2],
    [3, '2.png', 2],
  ])('takes the candidate for a screen of density %d', (density, name, natural) => {
    onScreen(density);
    expect(imageOf(set)).toEqual({ url: `http://a.test/${name}`, density: natural });
  });

  it('passes over formats that are not drawn, and outlives nonsense', () => {
    onScreen(1);
    const typed =
      'image-set(url("http://a.test/x.jxl") 1x type("image/jxl"), "http://a.test/x.webp" 96dpi type("image/webp"))';
    expect(imageOf(typed)).toEqual({ url: 'http://a.test/x.webp', density: 1 });
    expect(imageOf('image-set()')).toBeUndefined();
    expect(imageOf('image-set(url("http://a.test/x.png") 0x)')).toEqual({
      url: 'http://a.test/x.png',
      density: 1,
    });
    expect(layersOf('url(((((')).toHaveLength(1);
  });
});
