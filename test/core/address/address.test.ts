import { posix } from 'node:path';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { pageAddress, relativePathOf, splitExtension } from '../../../src/core/address/address.js';

describe('pageAddress', () => {
  it.each([
    ['HTTP://BrindleBay.test:80/a#part', 'http://brindlebay.test/a'],
    ['https://brindlebay.test.:443/', 'https://brindlebay.test/'],
    ['http://brindlebay.test/a/../b?q=1', 'http://brindlebay.test/b?q=1'],
  ])('gives %s its one form', (text, form) => {
    expect(pageAddress(text)).toBe(form);
  });

  it('resolves against a base, and is nothing for what is no page', () => {
    expect(pageAddress('../b', 'http://a.test/x/y')).toBe('http://a.test/b');
    for (const text of ['mailto:a@b.test', 'javascript:void 0', 'data:text/html,x', '', '::'])
      expect(pageAddress(text)).toBeUndefined();
    expect(pageAddress(`http://a.test/${'x'.repeat(100_000)}`)).toBeUndefined();
  });
});

describe('relativePathOf', () => {
  it('keeps the folder structure and the name', () => {
    expect(relativePathOf('http://a.test/img/Kites/red.large.jpg')).toBe('img/Kites/red.large.jpg');
    expect(relativePathOf('http://a.test/photo?id=7')).toBe('photo-id_7');
    expect(relativePathOf('http://a.test/img/')).toBe('img/index');
  });

  it('never leaves its folder, whatever the address', () => {
    const nasty = fc.constantFrom(
      '..',
      '.',
      '%2e%2e',
      '%2f',
      '\\',
      '%00',
      'CON',
      'nul.jpg',
      'aux.',
      'a.',
      '~',
      ' ',
      '*',
      ':',
    );
    const segment = fc.oneof(nasty, fc.string({ maxLength: 300 }), fc.webSegment());
    fc.assert(
      fc.property(fc.array(segment, { maxLength: 30 }), fc.string(), (segments, query) => {
        const text = `http://a.test/${segments.join('/')}?${query}`;
        fc.pre(URL.canParse(text));
        const path = relativePathOf(text);
        expect(posix.isAbsolute(path)).toBe(false);
        expect(posix.normalize(`root/${path}`).startsWith('root/')).toBe(true);
        expect(path).toMatch(/^[\w.~/-]+$/);
        expect(path.split('/').every((part) => part.length > 0 && part.length <= 130)).toBe(true);
        expect(path.split('/').some((part) => /^\.|\.$/.test(part))).toBe(false);
        expect(path).not.toMatch(/(?:^|\/)(?:con|nul|aux|prn|com\d|lpt\d)(?:[./]|$)/i);
        expect(path.length).toBeLessThan(900);
      }),
    );
  });
});

describe('splitExtension', () => {
  it('cuts the last extension off', () => {
    expect(splitExtension('a.b.jpg')).toEqual({ stem: 'a.b', extension: '.jpg' });
    expect(splitExtension('none')).toEqual({ stem: 'none', extension: '' });
    expect(splitExtension('.hidden')).toEqual({ stem: '.hidden', extension: '' });
  });
});
