import { describe, expect, it } from 'vitest';
import { pictureKey, unsizedAddress } from '../../../src/core/address/unsized-address.js';

const at = (path: string) => `http://a.test${path}`;

describe('an address without its size', () => {
  it.each([
    ['/up/kite-1024x768.jpg', '/up/kite.jpg'],
    ['/up/kite-scaled.jpg', '/up/kite.jpg'],
    ['/up/kite-1024x768@2x.png', '/up/kite.png'],
    ['/up/kite_w800.webp', '/up/kite.webp'],
    ['/up/kite-800w.webp', '/up/kite.webp'],
    ['/up/800px-kite.jpg', '/up/kite.jpg'],
    ['/up/thumb_kite.jpg', '/up/kite.jpg'],
    ['/up/kite.jpg?w=800&q=70', '/up/kite.jpg'],
    ['/up/kite.jpg?w=800&id=7', '/up/kite.jpg?id=7'],
    ['/cdn/w_800,h_600,c_fill/kite.jpg', '/cdn/kite.jpg'],
    ['/cdn/width=800,quality=75/up/kite.jpg', '/cdn/up/kite.jpg'],
    ['/cdn/800x600/kite.jpg', '/cdn/kite.jpg'],
    ['/thumbs/kite.jpg', '/kite.jpg'],
  ])('%s is %s', (sized, bare) => {
    expect(unsizedAddress(at(sized))).toBe(at(bare));
  });

  it.each(['/up/kite.jpg', '/up/race-2019.jpg', '/up/1024x768.jpg', '/wide/kite.jpg', '/up/w.jpg'])(
    '%s stays',
    (path) => {
      expect(unsizedAddress(at(path))).toBe(at(path));
    },
  );

  it('loses a bare number only where the file is as wide or as high', () => {
    expect(unsizedAddress(at('/up/race-2019.jpg'), [2019, 1200])).toBe(at('/up/race.jpg'));
    expect(unsizedAddress(at('/up/race-2019.jpg'), [800, 600])).toBe(at('/up/race-2019.jpg'));
  });

  it('comes to an end with names made to be long', () => {
    const name = '-800w'.repeat(300);
    expect(unsizedAddress(at(`/x${name}.jpg`))).toBe(at('/x.jpg'));
    const longer = at(`/x${'-800w'.repeat(100_000)}.jpg`);
    expect(unsizedAddress(longer)).toBe(longer);
  });
});

describe('the key of a picture', () => {
  it('is one for all sizes and formats of it', () => {
    const keys = ['/kite.jpg', '/kite-300x200.jpg', '/kite.webp', '/kite.jpg.webp', '/Kite@2x.PNG'];
    expect(new Set(keys.map((path) => pictureKey(at(path)))).size).toBe(1);
  });

  it('tells folders, hosts and other parameters apart', () => {
    const keys = ['/a/kite.jpg', '/b/kite.jpg', '/a/kite.jpg?colour=red', '/a/kite-2.jpg'];
    expect(new Set(keys.map((path) => pictureKey(at(path)))).size).toBe(4);
    expect(pictureKey('http://b.test/a/kite.jpg')).not.toBe(pictureKey(at('/a/kite.jpg')));
  });
});
