import { describe, expect, it } from 'vitest';
import { addressPattern, repeatsItself } from '../../../src/core/address/address-pattern.js';
import { withoutTokens } from '../../../src/core/address/address-token.js';

describe('addressShape', () => {
  it.each([
    ['http://a.test/', 'http://a.test/'],
    ['http://a.test/about', 'http://a.test/*'],
    ['http://a.test/journal/rain/', 'http://a.test/journal/*'],
    ['http://a.test/calendar/2026/11/3', 'http://a.test/calendar/*/*/*'],
    ['http://a.test/shop?colour=red&size=2', 'http://a.test/*?colour&size'],
    ['http://a.test/shop?size=3&colour=red&colour=blue', 'http://a.test/*?colour&size'],
    ['http://a.test/s/Zm9vYmFyYmF6cXV4cXV1eGNvcmdl/list', 'http://a.test/s/*/*'],
  ])('%s has the shape %s', (address, shape) => {
    expect(addressPattern(address)).toBe(shape);
  });
});

describe('goesRound', () => {
  it.each([
    ['http://a.test/a/b/a/b/a/b/a', true],
    ['http://a.test/kites/kites/kites', true],
    ['http://a.test/kites/kites/red', false],
    ['http://a.test/11/11/11', false],
    ['http://a.test/', false],
  ])('%s: %s', (address, round) => {
    expect(repeatsItself(address)).toBe(round);
  });
});

describe('withoutSession', () => {
  it.each([
    ['http://a.test/list;jsessionid=4F2A?page=2', 'http://a.test/list?page=2'],
    ['http://a.test/(S(k3jdu7w0))/list.aspx', 'http://a.test/list.aspx'],
    ['http://a.test/list?PHPSESSID=81&page=2', 'http://a.test/list?page=2'],
    ['http://a.test/list?page=2&sid=1', 'http://a.test/list?page=2'],
    ['http://a.test/list;colour=red?b=1&a=%20', 'http://a.test/list;colour=red?b=1&a=%20'],
    ['http://a.test/sid/sessions', 'http://a.test/sid/sessions'],
  ])('%s is %s', (address, plain) => {
    expect(withoutTokens(address)).toBe(plain);
  });
});
