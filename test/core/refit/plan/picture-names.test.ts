import { describe, expect, it } from 'vitest';
import { picturesByName } from '../../../../src/core/refit/plan/picture-names.js';

const find = picturesByName([
  { contentHash: 'a', names: ['http://brindlebay.test/img/a/kite.jpg', 'http://x.test/k.jpg'] },
  { contentHash: 'b', names: ['http://brindlebay.test/img/b/kite.jpg'] },
  { contentHash: 'c', names: ['camera/two%20kites.jpg', 'http://brindlebay.test/two%20kites.jpg'] },
]);

describe('pictures by what people call them', () => {
  it.each([
    ['http://brindlebay.test/img/a/kite.jpg', ['a']],
    ['/img/a/kite.jpg', ['a']],
    ['a/kite.jpg', ['a']],
    ['./b/kite.jpg', ['b']],
    ['kite.jpg', ['a', 'b']],
    ['k.jpg', ['a']],
    ['two kites.jpg', ['c']],
    ['ite.jpg', []],
    ['', []],
  ])('%j', (name, hashes) => {
    expect(find(name)).toEqual(hashes);
  });
});
