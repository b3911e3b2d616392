import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  RefitNames,
  isNamePattern,
  isSafeStem,
  stemFor,
} from '../../../../src/core/refit/plan/refit-names.js';
import type { Named, Naming } from '../../../../src/core/refit/plan/refit-names.js';

const naming: Naming = {
  pattern: null,
  stems: new Map(),
  hashOf: ({ contentHash, format, width }) => `${contentHash.slice(0, 4)}${format}${width}`,
};
const file: Named = {
  stem: 'img/kites/IMG_0412',
  format: 'webp',
  contentHash: 'abcd1234',
  width: 716,
  height: 478,
  main: true,
};

describe('names of a refit', () => {
  it('keep the folder and the stem, and tell widths apart', () => {
    const names = new RefitNames(naming, []);
    expect(names.take(file)).toBe('img/kites/IMG_0412.webp');
    expect(names.take({ ...file, width: 390, main: false })).toBe('img/kites/IMG_0412-390.webp');
    expect(names.take({ ...file, format: 'jpeg' })).toBe('img/kites/IMG_0412.jpg');
    expect(names.take({ ...file, format: 'svg', width: null, height: null })).toBe(
      'img/kites/IMG_0412.svg',
    );
    expect(names.collisions).toEqual([]);
  });

  it('follow a pattern; what a vector does not have is left out of it', () => {
    const pattern = '{stem}-{width}x{height}.{hash}.{format}';
    const names = new RefitNames({ ...naming, pattern }, []);
    expect(names.take(file)).toBe('img/kites/IMG_0412-716x478.abcdwebp716.webp.webp');
    const plain = new RefitNames({ ...naming, pattern: '{stem}-{width}' }, []);
    expect(plain.take({ ...file, format: 'svg', width: null, height: null })).toBe(
      'img/kites/IMG_0412.svg',
    );
  });

  it('lead through no file, and are no folder of another', () => {
    const names = new RefitNames(naming, []);
    const below = { ...file, stem: 'media/kite.webp/w_600/kite' };
    expect(names.take({ ...file, stem: 'media/kite' })).toBe('media/kite.webp');
    expect(names.take(below)).toBe('media/kite.webp_/w_600/kite.webp');
    const others = new RefitNames(naming, []);
    expect(others.take(below)).toBe('media/kite.webp/w_600/kite.webp');
    expect(others.take({ ...file, stem: 'media/kite' })).toBe('media/kite-abcdwebp716.webp');
    expect(others.collisions).toHaveLength(1);
  });

  it('make a file system of any paths', () => {
    const segment = fc.constantFrom('a', 'b', 'kite.webp', 'KITE.webp', 'kite');
    const paths = fc.array(fc.array(segment, { minLength: 1, maxLength: 4 }), { maxLength: 30 });
    fc.assert(
      fc.property(paths, (all) => {
        const names = new RefitNames(naming, []);
        const taken = all.map((parts, at) =>
          names.take({ ...file, stem: parts.join('/'), contentHash: `${at}`.padStart(8, '0') }),
        );
        const lower = taken.map((path) => path.toLowerCase());
        expect(new Set(lower).size).toBe(lower.length);
        for (const one of lower)
          for (const other of lower) expect(other.startsWith(`${one}/`)).toBe(false);
      }),
    );
  });

  it('are never given twice, whatever their case, and tell what was wanted', () => {
    const names = new RefitNames(naming, []);
    names.take(file);
    const other = { ...file, stem: 'img/kites/img_0412', contentHash: 'ffff0000' };
    expect(names.take(other)).toBe('img/kites/img_0412-ffffwebp716.webp');
    expect(names.take(other)).toBe('img/kites/img_0412-ffffwebp716-2.webp');
    expect(names.take({ ...file, stem: 'review', format: 'png' })).toMatch(/^review-abcd/);
    expect(names.take({ ...file, stem: 'Sheets/kite' })).toBe('site/Sheets/kite.webp');
    expect(names.collisions.map(({ wanted }) => wanted)).toEqual([
      'img/kites/img_0412.webp',
      'img/kites/img_0412.webp',
      'review.png',
      'Sheets/kite.webp',
    ]);
  });

  it('are those of no other original, which would be overwritten where they are put in place', () => {
    const original = (
      path: string,
      contentHash: string | null,
      wholeWidth: number | null = null,
    ) => ({
      ...{ path, contentHash, wholeWidth },
    });
    const names = new RefitNames(naming, [
      original('img/kites/img_0412.JPG', 'ffff0000'),
      original('img/kites/IMG_0412.webp', file.contentHash),
      original('img/kites/IMG_0412-716.png', null),
    ]);
    expect(names.take(file)).toBe('img/kites/IMG_0412.webp');
    expect(names.take({ ...file, format: 'jpeg' })).toBe('img/kites/IMG_0412-abcdjpeg716.jpg');
    // Nobody knows what is there, only that something is.
    const variant = { ...file, format: 'png' as const, main: false };
    expect(names.take(variant)).toBe('img/kites/IMG_0412-716-abcdpng716.png');
  });

  it('are not those of an original that somebody asks for in full, unless all of it is there', () => {
    const path = 'img/kites/IMG_0412.jpg';
    const take = (width: number) => {
      const original = { path, contentHash: file.contentHash, wholeWidth: 2_000 };
      const names = new RefitNames(naming, [original]);
      return names.take({ ...file, format: 'jpeg', width, height: width / 2 });
    };
    expect(take(716)).toBe('img/kites/IMG_0412-716.jpg');
    expect(take(2_000)).toBe(path);
  });

  it('are all different for any files', () => {
    const anyFile = fc.record({
      stem: fc.constantFrom('a', 'A', 'b/a', 'manifest', 'review'),
      format: fc.constantFrom('webp' as const, 'jpeg' as const, 'png' as const),
      contentHash: fc.constantFrom('aaaa', 'bbbb'),
      width: fc.constantFrom(10, 20),
      height: fc.constant(5),
      main: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(anyFile, { maxLength: 30 }),
        fc.constantFrom(null, '{stem}', '{stem}-{width}.{hash}', '{hash}'),
        (files, pattern) => {
          const names = new RefitNames({ ...naming, pattern }, []);
          const taken = files.map((one) => names.take(one).toLowerCase());
          expect(new Set(taken).size).toBe(taken.length);
          for (const name of taken) expect(name).not.toMatch(/^review\/|\.\.|^\//);
        },
      ),
    );
  });

  it('take new stems into the folder of the original, or to a path of their own', () => {
    const stems = new Map([
      ['a', 'morning-beach'],
      ['b', 'beach/morning'],
    ]);
    const stem = (hash: string) => stemFor('img/IMG_1.jpg', 'host/', hash, { ...naming, stems });
    expect(['a', 'b', 'c'].map(stem)).toEqual([
      'host/img/morning-beach',
      'host/beach/morning',
      'host/img/IMG_1',
    ]);
  });

  it.each([
    ['kites-over-the-bay', true],
    ['img/kites_2.large', true],
    ['', false],
    ['../kites', false],
    ['/kites', false],
    ['img//kites', false],
    ['.hidden', false],
    ['a\\b', false],
    ['a b', false],
    ['a/..', false],
  ])('%j as a stem from a file: %s', (text, safe) => {
    expect(isSafeStem(text)).toBe(safe);
  });

  it.each([
    ['{stem}', true],
    ['{stem}-{width}.{hash}', true],
    ['{hash}', true],
    ['{width}', false],
    ['{stem}/{width}', false],
    ['../{stem}', false],
    ['.{stem}', false],
    ['{stem}{size}', false],
  ])('%j as a pattern: %s', (text, fine) => {
    expect(isNamePattern(text)).toBe(fine);
  });
});
