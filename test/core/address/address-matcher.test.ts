import { describe, expect, it } from 'vitest';
import { addressMatcher, applyQueryRule } from '../../../src/core/address/address-matcher.js';
import { keptAddress, maxAddressLength } from '../../../src/core/address/address.js';

describe('addressPattern', () => {
  it.each([
    ['/journal/*', 'http://a.test/journal/one', true],
    ['/journal/*', 'http://a.test/old/journal/one', false],
    ['*/one', 'http://a.test/journal/one', true],
    ['/a.html', 'http://a.test/aXhtml', false],
    ['/search?q=*', 'http://a.test/search?q=kites', true],
    ['http://a.test/*', 'http://a.test/x', true],
    ['http://a.test/*', 'https://a.test/x', false],
    ['*://a.test/x', 'https://a.test/x', true],
    ['/(a|b)+', 'http://a.test/a', false],
  ])('%s and %s: %s', (pattern, address, meant) => {
    expect(addressMatcher(pattern)(address)).toBe(meant);
  });
});

describe('applyQueryRule', () => {
  const address = 'http://a.test/x?session=9&page=2&id=7';
  it('keeps, drops, or reduces to the named keys', () => {
    expect(applyQueryRule(address, 'keep')).toBe(address);
    expect(applyQueryRule(address, 'drop')).toBe('http://a.test/x');
    expect(applyQueryRule(address, ['id', 'page'])).toBe('http://a.test/x?page=2&id=7');
  });
});

describe('keptAddress', () => {
  it('cuts what is too long in one way, and leaves the rest as it is', () => {
    expect(keptAddress('http://a.test/x#part')).toBe('http://a.test/x');
    const long = `data:image/png;base64,${'A'.repeat(100_000)}`;
    expect(keptAddress(long).length).toBeLessThanOrEqual(maxAddressLength);
    expect(keptAddress(long)).toBe(keptAddress(long));
    expect(keptAddress(long)).not.toBe(keptAddress(`${long}A`));
  });
});
