import { describe, expect, it } from 'vitest';
import { parseAddressList } from '../../src/crawl/address-list.js';

const parse = (text: string) => parseAddressList(text, 'pages.csv');

describe('a list of pages', () => {
  it('is one address a line, whatever stands in it', () => {
    const text = '\uFEFF# ours\r\nhttp://a.test/x,y;z\r\n\r\n  HTTP://A.test/b#c \n';
    expect(parse(text)).toEqual([
      { url: 'http://a.test/x,y;z', visits: null },
      { url: 'http://a.test/b', visits: null },
    ]);
  });

  it.each([
    ['url,visits\nhttp://a.test/,1200\n"http://a.test/x,y","2,400"\nhttp://a.test/z,\n'],
    ['Visits;Page;Note\n1200;http://a.test/;home\n2 400;http://a.test/x,y;\n;http://a.test/z;'],
    ['sessions\turl\n1200\thttp://a.test/\n2400\thttp://a.test/x,y\n\thttp://a.test/z'],
  ])('is CSV with a heading: %j', (text) => {
    expect(parse(text)).toEqual([
      { url: 'http://a.test/', visits: 1200 },
      { url: 'http://a.test/x,y', visits: 2400 },
      { url: 'http://a.test/z', visits: null },
    ]);
  });

  it.each([
    ['http://a.test/\n\nftp://a.test/', 'pages.csv, line 3: "ftp://a.test/" is not an address'],
    ['url,visits\nhttp://a.test/,many', 'pages.csv, line 2: "many" is not a number of visits'],
    ['url\nhttp://a.test/\n"http://b', 'pages.csv, line 3: Quote Not Closed'],
    ['where,visits\nhttp://a.test/,1', 'pages.csv, line 1: there is no column url, address, page'],
    ['http://a.test/,1200', 'pages.csv, line 1: more than an address, but no heading'],
    ['# nothing\n', 'pages.csv lists no pages'],
    ['\u0000\u0001\u0002', 'pages.csv, line 1: there is no column url'],
  ])('%j is refused with its line', (text, message) => {
    expect(() => parse(text)).toThrow(expect.objectContaining({ code: 'USAGE' }));
    expect(() => parse(text)).toThrow(message);
  });
});
