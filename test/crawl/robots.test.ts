import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { fetchFile } from '../../src/crawl/fetch-file.js';
import { mappedPlace } from '../../src/reach/host-map.js';
import { Reach } from '../../src/reach/reach.js';
import { Robots } from '../../src/crawl/robots.js';
import { serve } from '../support/server.js';

const options = { reach: Reach.open(), userAgent: 'ZealousLynx', limit: 1_000, timeout: 2_000 };

function robotsOf(status: number, text: string): Robots {
  return new Robots(() => Promise.resolve({ status, body: Buffer.from(text) }), 0);
}

describe('Robots', () => {
  it('obeys the longest match, wildcards and the group that names the tool', async () => {
    const robots = robotsOf(
      200,
      `User-agent: *
Disallow: /
User-agent: ZealousLynx
Disallow: /private
Allow: /private/open
Disallow: /*.cgi$
Disallow: /caf%C3%A9`,
    );
    const forbidden = async (path: string) =>
      (await robots.refusal(`http://a.test${path}`)) !== undefined;
    expect(await forbidden('/')).toBe(false);
    expect(await forbidden('/private/x')).toBe(true);
    expect(await forbidden('/private/open/x')).toBe(false);
    expect(await forbidden('/run.cgi')).toBe(true);
    expect(await forbidden('/run.cgi?x')).toBe(false);
    expect(await forbidden('/café')).toBe(true);
  });

  it.each([
    [404, undefined],
    [403, undefined],
    [200, undefined],
    [503, expect.stringMatching(/^robots.txt cannot be read \(it returned 503\), so nothing may/)],
  ])('takes an answer of %i with nothing in it for: %s', async (status, refusal) => {
    expect(await robotsOf(status, '').refusal('http://a.test/x')).toEqual(refusal);
  });

  it('asks each server once, and takes one that does not respond for one that forbids all', async () => {
    const asked: string[] = [];
    const robots = new Robots((url) => {
      asked.push(url);
      return Promise.reject(new Error('connection refused'));
    }, 0);
    const reason = await robots.refusal('http://a.test/x');
    expect(reason).toMatch(/^robots.txt cannot be read \(connection refused\)/);
    await Promise.all([robots.refusal('http://a.test/y'), robots.refusal('http://b.test/')]);
    const times = (url: string) => asked.filter((one) => one === url).length;
    expect([times('http://a.test/robots.txt'), times('http://b.test/robots.txt')]).toEqual([3, 3]);
  });

  it('asks again for what fails for a moment', async () => {
    let asked = 0;
    const robots = new Robots(() => {
      const body = Buffer.from('User-agent: *\nDisallow: /shut');
      return asked++ === 0
        ? Promise.reject(new Error('no'))
        : Promise.resolve({ status: 200, body });
    }, 0);
    expect(await robots.refusal('http://a.test/shut')).toBe('forbidden by robots.txt');
    expect(await robots.refusal('http://a.test/open')).toBeUndefined();
  });
});

describe('fetchFile', () => {
  it('follows redirects, and reads no more than it may', async () => {
    const { origin } = await serve({
      '/a': { location: '/b' },
      '/b': { type: 'text/plain', body: 'x'.repeat(5_000) },
      '/loop': { location: '/loop' },
    });
    const { status, body } = await fetchFile(`${origin}/a`, options);
    expect([status, body.length]).toEqual([200, 1_000]);
    await expect(fetchFile(`${origin}/loop`, options)).rejects.toThrow('redirect loop');
  });

  it('undoes what servers compress unasked, within its limit', async () => {
    const headers = { 'content-encoding': 'gzip' };
    const bomb = gzipSync(Buffer.alloc(50_000_000));
    const { origin } = await serve({
      '/zipped': { type: 'text/plain', headers, body: gzipSync('kites') },
      '/false': { type: 'text/plain', headers, body: 'plain after all' },
      '/bomb': { type: 'text/plain', headers, body: bomb },
    });
    const read = async (path: string) =>
      (await fetchFile(origin + path, { ...options, limit: 100_000 })).body;
    expect(String(await read('/zipped'))).toBe('kites');
    expect(String(await read('/false'))).toBe('plain after all');
    expect(await read('/bomb')).toEqual(bomb);
  });

  it('goes where a host really is, and gives up on one that is silent', async () => {
    const { origin } = await serve({
      '/robots.txt': { type: 'text/plain', body: 'here' },
      '/slow': { wait: 5_000 },
    });
    const hosts = { '*.test': origin.slice('http://'.length) };
    expect(
      (
        await fetchFile('http://kites.test/robots.txt', { ...options, reach: Reach.open(hosts) })
      ).body.toString(),
    ).toBe('here');
    await expect(fetchFile(`${origin}/slow`, { ...options, timeout: 200 })).rejects.toThrow();
    expect(mappedPlace({ '*.test': '[::1]:80' }, 'deep.kites.test', 443)).toEqual({
      host: '::1',
      port: 80,
    });
    expect(mappedPlace({ '*.test': '127.0.0.1:80' }, 'kites.example', 80)).toBeUndefined();
  });
});
