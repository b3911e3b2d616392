import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { picturesNamedBy } from '../../src/crawl/naming-file.js';

const feed = { kind: 'feed', url: 'http://a.test/news/feed.xml' } as const;
const manifest = { kind: 'manifest', url: 'http://a.test/site.webmanifest' } as const;

describe('picturesNamedBy', () => {
  it('finds the pictures of RSS, also in the texts of its entries', () => {
    const body = `<?xml version="1.0"?>
<rss version="2.0" xmlns:media="http://search.yahoo.com/mrss/" xmlns:content="http://purl.org/rss/1.0/modules/content/">
<channel><title>Kites</title><link>/</link>
<image><url>/img/logo.png</url><link>http://a.test/</link></image>
<item><enclosure url="/audio.mp3" type="audio/mpeg"/><enclosure url="rain.jpg" type="image/jpeg"/>
<media:content url="/big.jpg" medium="image"/><media:thumbnail url="/small.jpg"/>
<description>&lt;p&gt;Rain &lt;img src="/in-text.png"&gt;&lt;/p&gt;</description>
<content:encoded><![CDATA[<img src="/a.jpg" srcset="/a-300.jpg 300w, /a-600.jpg 600w"><video poster="/p.jpg"></video>]]></content:encoded>
</item></channel></rss>`;
    expect(picturesNamedBy(feed, body).map((url) => new URL(url).pathname)).toEqual([
      '/img/logo.png',
      '/news/rain.jpg',
      '/big.jpg',
      '/small.jpg',
      '/in-text.png',
      '/a.jpg',
      '/a-300.jpg',
      '/a-600.jpg',
      '/p.jpg',
    ]);
  });

  it('finds the pictures of Atom, with those that stand in it as elements', () => {
    const body = `<feed xmlns="http://www.w3.org/2005/Atom"><logo>logo.png</logo><icon>/icon.png</icon>
<entry><link rel="alternate" href="/entry"/><link rel="enclosure" type="image/png" href="/e.png"/>
<content type="xhtml"><div xmlns="http://www.w3.org/1999/xhtml"><img src="/x.png" alt=""/></div></content></entry></feed>`;
    expect(picturesNamedBy(feed, body)).toEqual([
      'http://a.test/news/logo.png',
      'http://a.test/icon.png',
      'http://a.test/e.png',
      'http://a.test/x.png',
    ]);
  });

  it('finds the pictures of JSON Feed and of web manifests', () => {
    const items = [
      { url: '/post', image: '/post.jpg', content_html: '<img src="c.png">' },
      { attachments: [{ url: '/sound.mp3', mime_type: 'audio/mpeg' }] },
      { attachments: [{ url: '/att.png', mime_type: 'image/png' }] },
    ];
    expect(picturesNamedBy(feed, JSON.stringify({ icon: '/i.png', items }))).toEqual([
      'http://a.test/i.png',
      'http://a.test/post.jpg',
      'http://a.test/news/c.png',
      'http://a.test/att.png',
    ]);
    const app = {
      start_url: '/',
      icons: [{ src: 'icon-192.png', sizes: '192x192' }],
      screenshots: [{ src: '/shot.png' }],
      shortcuts: [{ url: '/map', icons: [{ src: '/map.png' }] }],
    };
    expect(picturesNamedBy(manifest, JSON.stringify(app))).toEqual([
      'http://a.test/icon-192.png',
      'http://a.test/shot.png',
      'http://a.test/map.png',
    ]);
  });

  it('keeps what stood before a mistake, and takes no address but of the web', () => {
    expect(picturesNamedBy(feed, '<rss><image><url>/a.png</url></image><item></rss')).toEqual([
      'http://a.test/a.png',
    ]);
    expect(picturesNamedBy(manifest, '{"icons":[{"src":"data:image/png;base64,AA"}')).toEqual([]);
    const icons = [{ src: 'javascript:1' }, { src: 'file:///etc/passwd' }, { src: 7 }];
    expect(picturesNamedBy(manifest, JSON.stringify({ icons }))).toEqual([]);
  });

  it('reads anything without failing', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.json()), (body) => {
        for (const file of [feed, manifest])
          for (const url of picturesNamedBy(file, body)) expect(url).toMatch(/^https?:/);
      }),
    );
  });
});
