import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { maxSitemapBytes, parseSitemap } from '../../src/crawl/sitemap.js';

const xml = (body: string) => Buffer.from(`<?xml version="1.0" encoding="UTF-8"?>\n${body}`);
const namespace = 'xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"';
const urlset = xml(`<urlset ${namespace} xmlns:image="http://images.test/">
  <url><loc> http://a.test/one?a=1&amp;b=2 </loc><image:image><image:loc>http://a.test/x.jpg</image:loc></image:image></url>
  <url><lastmod>2026-01-01</lastmod><loc><![CDATA[http://a.test/two]]></loc></url>
</urlset>`);
const found = {
  modified: new Map([['http://a.test/two', '2026-01-01']]),
  pages: ['http://a.test/one?a=1&b=2', 'http://a.test/two'],
  sitemaps: [],
};

describe('a sitemap', () => {
  it('names its pages, and not what else stands in it', () => {
    expect(parseSitemap(urlset)).toEqual({ ...found, problems: [] });
  });

  it('may be compressed, and may have a prefix', () => {
    expect(parseSitemap(gzipSync(urlset))).toEqual({ ...found, problems: [] });
    const prefixed = xml(
      '<s:urlset xmlns:s="x"><s:url><s:loc>http://a.test/</s:loc></s:url></s:urlset>',
    );
    expect(parseSitemap(prefixed).pages).toEqual(['http://a.test/']);
  });

  it('may be an index of others', () => {
    const index = xml(
      `<sitemapindex ${namespace}><sitemap><loc>http://a.test/1.xml</loc></sitemap></sitemapindex>`,
    );
    expect(parseSitemap(index)).toEqual({
      pages: [],
      modified: new Map(),
      sitemaps: ['http://a.test/1.xml'],
      problems: [],
    });
  });

  it('may be a text with one address a line', () => {
    expect(parseSitemap(Buffer.from('http://a.test/\r\n\r\nnot one\n'))).toEqual({
      pages: ['http://a.test/'],
      modified: new Map(),
      sitemaps: [],
      problems: ['line 3: "not one" is not an address'],
    });
  });

  it('says with line numbers what is wrong, and keeps what is right', () => {
    const broken = xml(
      '<urlset>\n<url><loc>http://a.test/</loc></url>\n<url><loc>/two</loc></url>\n<url><loc>&nope;',
    );
    const { pages, problems } = parseSitemap(broken);
    expect(pages).toEqual(['http://a.test/']);
    expect(problems[0]).toBe('line 4: "/two" is not an address');
    expect(problems[1]).toMatch(/^line 5: /);
    expect(parseSitemap(xml('<html><p>Not found</html>')).problems[0]).toMatch(/^line 2: /);
    expect(parseSitemap(xml('<rss/>')).problems).toEqual([
      'line 1: it is neither a urlset nor a sitemapindex',
    ]);
  });

  it('does not unpack what is larger than a sitemap may be, nor believe entities', () => {
    const bomb = gzipSync(Buffer.alloc(maxSitemapBytes + 1_000, 0x20));
    expect(parseSitemap(bomb).problems[0]).toBe('unzipped it is larger than 50 MiB');
    const entities = xml(
      '<!DOCTYPE u [<!ENTITY a "http://a.test/"><!ENTITY b "&a;&a;&a;">]><urlset><url><loc>&b;</loc></url></urlset>',
    );
    expect(parseSitemap(entities).pages).toEqual([]);
  });
});
