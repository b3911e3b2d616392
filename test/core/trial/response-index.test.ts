import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ResponseIndex } from '../../../src/core/trial/response-index.js';

const responseTo = (url: string, name = url, method = 'GET') => ({
  name,
  request: { method, url },
});
const indexOf = (...responses: ReturnType<typeof responseTo>[]) => new ResponseIndex(responses);

describe('a request of a replay', () => {
  it('gets the response to its address', () => {
    const index = indexOf(
      responseTo('http://bay.test/kite.png'),
      responseTo('http://bay.test/tail.png'),
    );
    expect(index.find('GET', 'http://bay.test/tail.png')).toMatchObject({
      kind: 'exact',
      response: { name: 'http://bay.test/tail.png' },
    });
  });

  it('gets none where nothing like it was recorded', () => {
    const index = indexOf(responseTo('http://bay.test/kite.png?w=800'));
    for (const url of [
      'http://bay.test/tail.png?w=800',
      'http://other.test/kite.png?w=800',
      'http://bay.test/kite.png',
      'http://bay.test/kite.png?h=800',
    ])
      expect(index.find('GET', url)).toBeNull();
    expect(index.find('POST', 'http://bay.test/kite.png?w=800')).toBeNull();
  });

  it('is matched by what stays the same of an address that differs from load to load', () => {
    const index = indexOf(
      responseTo('http://bay.test/count?page=home&at=1764201600123', 'home'),
      responseTo('http://bay.test/count?page=journal&at=1764201600124', 'journal'),
      responseTo('http://bay.test/s/0d3f6a1c-8a4b-4c11-9d55-3a2b1c0d9e8f/tag.js', 'tag'),
    );
    expect(index.find('GET', 'http://bay.test/count?page=journal&at=1764299999999')).toMatchObject({
      kind: 'alike',
      response: { name: 'journal' },
    });
    expect(
      index.find('GET', 'http://bay.test/s/11111111-2222-4333-8444-555555555555/tag.js'),
    ).toMatchObject({ kind: 'alike', response: { name: 'tag' } });
  });

  it('gets what it got in turn, and begins anew with each load', () => {
    const index = indexOf(
      responseTo('http://bay.test/now', 'first'),
      responseTo('http://bay.test/now', 'second'),
    );
    const names = () =>
      [1, 2, 3].map(() => index.find('GET', 'http://bay.test/now')?.response.name);
    expect(names()).toEqual(['first', 'second', 'second']);
    index.begin();
    expect(names()).toEqual(['first', 'second', 'second']);
  });

  it('finds every recorded address again, whatever it is', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.webUrl({ withQueryParameters: true })), (urls) => {
        const index = indexOf(...urls.map((url) => responseTo(url)));
        for (const url of urls)
          expect(index.find('GET', url)).toMatchObject({ kind: 'exact', response: { name: url } });
      }),
    );
  });
});
