import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withoutOrigin, plainText, shorten } from '../../../src/output/words/plain-text.js';
import { count, formatBytes, formatShare, formatTime } from '../../../src/output/words/units.js';

describe('plainText', () => {
  it('lets nothing through that moves the cursor, colours or turns text', () => {
    const nasty = '\u001b[31mred\u001b[0m\r\n\u0007\u202Egnp.exe\u0085\u009b2J';
    expect(plainText(nasty)).toBe('�[31mred�[0m����gnp.exe��2J');
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 600 }), (text) => {
        // eslint-disable-next-line no-control-regex
        expect(plainText(text)).not.toMatch(/[\u0000-\u001f\u007f-\u009f\u202a-\u202e]/);
        expect(plainText(text, 50).length).toBeLessThanOrEqual(50);
        expect(shorten(text, 20).length).toBeLessThanOrEqual(20);
      }),
    );
  });

  it('shortens in the middle and keeps the name', () => {
    expect(shorten('/a/very/long/folder/name/picture.jpg', 20)).toMatch(/^\/.*….*picture\.jpg$/);
    expect(withoutOrigin('http://a.test/x', 'http://a.test')).toBe('/x');
    expect(withoutOrigin('http://a.test.evil/x', 'http://a.test')).toBe('http://a.test.evil/x');
  });

  it('leaves whole steps out of a selector', () => {
    const selector = 'main > section > div > article > figure > a > img';
    expect(shorten(selector, 32)).toBe('main > … > figure > a > img');
    for (let limit = 10; limit < selector.length; limit++)
      expect([limit, shorten(selector, limit)]).toEqual([
        limit,
        expect.stringMatching(/^(?:\w+ > )*…(?: > \w+)*(?: > img)$|^\w*…\w+$/),
      ]);
  });
});

describe('units', () => {
  it('are written as people read them', () => {
    expect(formatBytes(999)).toBe('999 B');
    expect(formatBytes(12_345)).toBe('12 kB');
    expect(formatBytes(7_900_000)).toBe('7.90 MB');
    expect(formatTime(340.4)).toBe('340 ms');
    expect(formatTime(1240)).toBe('1.24 s');
    expect(formatShare(1, 3)).toBe('33.3 %');
    expect(formatShare(0, 0)).toBe('–');
    expect(count(1, 'page')).toBe('1 page');
    expect(count(1200, 'page')).toBe('1,200 pages');
  });
});
