import { describe, expect, it } from 'vitest';
import { largerNames } from '../../../../src/core/refit/plan/larger-names.js';
import type { PictureUse } from '../../../../src/core/survey/picture-use.js';

const use = (kind: PictureUse['kind'], path: string): PictureUse => ({
  kind,
  url: `http://a.test${path}`,
  page: 'http://a.test/',
});

const names = (
  uses: readonly PictureUse[],
  path: string,
  { known = [], sides = [] }: { known?: readonly string[]; sides?: readonly number[] } = {},
) =>
  largerNames(uses, new Set([path, ...known].map((one) => `http://a.test${one}`)))(
    [`http://a.test${path}`],
    sides,
  ).map((url) => url.replace('http://a.test', ''));

describe('names of larger files', () => {
  it.each([
    ['/up/bay-640x480.jpg', [], ['/up/bay.jpg']],
    ['/up/bay-640.jpg', [640, 480], ['/up/bay.jpg']],
    ['/up/bay-640.jpg', [], []],
    ['/cdn/w_640/bay.jpg', [], ['/cdn/bay.jpg']],
    ['/bay.jpg?w=640', [], ['/bay.jpg']],
    ['/bay.jpg', [], []],
  ])('are those without a size: %s', (path, sides, expected) => {
    expect(names([], path, { sides })).toEqual(expected);
  });

  it('are then those that pages link to, and other names without a size', () => {
    const uses = [
      use('metadata', '/up/bay-1024x768.jpg'),
      use('metadata', '/up/bay.png'),
      use('link', '/up/bay-2048x1536.jpg#open'),
      use('link', '/up/pier.jpg'),
      use('icon', '/up/bay.webp'),
    ];
    expect(names(uses, '/up/bay-640x480.jpg')).toEqual([
      '/up/bay.jpg',
      '/up/bay-2048x1536.jpg',
      '/up/bay.png',
    ]);
  });

  it('are none that is known already, or on another host', () => {
    const uses = [{ ...use('link', ''), url: 'http://b.test/up/bay-2048x1536.jpg' }];
    expect(names(uses, '/up/bay-640x480.jpg', { known: ['/up/bay.jpg'] })).toEqual([]);
  });
});
