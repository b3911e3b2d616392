import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { firstPagesIn } from '../../src/crawl/folder-pages.js';
import { serveFolder } from '../../src/crawl/folder-site.js';
import { parseStart } from '../../src/crawl/start.js';
import { temporaryFolder, writeFiles } from '../support/folder.js';

describe('parseStart', () => {
  it('knows an address, a host name and a folder', () => {
    const folder = temporaryFolder();
    expect(parseStart('HTTP://A.test')).toEqual({ kind: 'address', url: 'http://a.test/' });
    expect(parseStart('a.test/x')).toEqual({ kind: 'address', url: 'https://a.test/x' });
    expect(parseStart(folder)).toEqual({ kind: 'folder', path: folder });
  });

  it.each(['./nowhere', '/no/such/folder', 'nowhere', 'public/'])(
    'says that %s is not there',
    (text) => {
      expect(() => parseStart(text)).toThrow(expect.objectContaining({ code: 'NOT_FOUND' }));
    },
  );

  it('refuses an address that is none', () => {
    expect(() => parseStart('http://')).toThrow(expect.objectContaining({ code: 'USAGE' }));
  });
});

describe('firstPagesIn', () => {
  it('begins with the front page, else with the pages nearest to it', () => {
    const folder = temporaryFolder();
    writeFiles(folder, {
      'node_modules/kites/index.html': '',
      '.drafts/old.html': '',
      'css/site.css': '',
      'pages/Día 1.html': '',
      'pages/about.htm': '',
      'pages/more/deeper.html': '',
      'other/map.HTML': '',
    });
    const nearest = ['/other/map.HTML', '/pages/D%C3%ADa%201.html', '/pages/about.htm'];
    expect(firstPagesIn(folder)).toEqual(nearest);
    writeFiles(folder, { 'index.html': '' });
    expect(firstPagesIn(folder)).toEqual(['/']);
  });

  it('begins with the front pages of the folders nearest to it', () => {
    const folder = temporaryFolder();
    writeFiles(folder, {
      'help/en/index.html': '',
      'help/en/kites.html': '',
      'help/pt/kites.html': '',
      'help/pt/lines.html': '',
      'help/pt/old/index.html': '',
    });
    expect(firstPagesIn(folder)).toEqual([
      '/help/en/',
      '/help/pt/kites.html',
      '/help/pt/lines.html',
    ]);
  });

  it('says that a folder has no page', () => {
    const folder = temporaryFolder();
    writeFiles(folder, { 'a/b/kite.jpg': '' });
    expect(() => firstPagesIn(folder)).toThrow(expect.objectContaining({ code: 'NOT_FOUND' }));
  });
});

describe('serveFolder', () => {
  it('serves what is in the folder and nothing else', async () => {
    const outside = temporaryFolder();
    writeFiles(outside, { 'secret.txt': 'secret' });
    const folder = join(outside, 'My Site!');
    writeFiles(folder, { 'index.html': 'home', 'about.html': 'about', '.env': 'hidden' });
    const site = await serveFolder(folder);
    const get = async (path: string) => {
      const response = await fetch(`http://${site.address}${path}`);
      return `${response.status} ${await response.text()}`;
    };
    try {
      expect(site.start).toBe('http://my-site.localhost/');
      expect(await get('/')).toBe('200 home');
      expect(await get('/about')).toBe('200 about');
      for (const path of [
        '/../secret.txt',
        '/%2e%2e/secret.txt',
        '/..%2fsecret.txt',
        '/.env',
        '/none',
      ])
        expect(await get(path)).toMatch(/^404/);
    } finally {
      await site.close();
    }
  });
});
