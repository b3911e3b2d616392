import { describe, expect, it } from 'vitest';
import { attack } from './attack.js';
import { temporaryFolder } from '../support/folder.js';
import { oneView, run, runJson } from '../support/program.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';
import type { Answers } from '../support/server.js';

interface Surveyed {
  readonly pages: readonly { readonly url: string; readonly error: string | null }[];
  readonly skipped: readonly { readonly url: string; readonly reason: string }[];
}

/** What pages may do to make a browser connect somewhere, and robots.txt and sitemaps to make the program do it. */
const lures: Readonly<Record<string, (inside: string, port: string) => Answers>> = {
  'a redirect of the server': (inside) => ({
    '/': { body: '<!doctype html><a href="/r">on</a>' },
    '/r': { location: `${inside}/x` },
  }),
  'a refresh': (inside) => ({
    '/': { body: `<!doctype html><meta http-equiv="refresh" content="0;url=${inside}/x"><p>on` },
  }),
  'a script that leaves': (inside) => ({
    '/': { body: `<!doctype html><p>on<script>location.href = '${inside}/x'</script>` },
  }),
  'a form that sends itself': (inside) => ({
    '/': {
      body: `<!doctype html><form method="post" action="${inside}/x"></form><script>document.forms[0].submit()</script>`,
    },
  }),
  'images, frames, styles, scripts and hints': (inside) => ({
    '/': {
      body: `<!doctype html><link rel="stylesheet" href="${inside}/a.css"><script src="${inside}/b.js"></script>
        <link rel="preconnect" href="${inside}"><link rel="prefetch" href="${inside}/c"><link rel="icon" href="${inside}/i.png">
        <img src="${inside}/d.jpg" width="100" height="100"><iframe src="${inside}/e"></iframe><video src="${inside}/f.mp4"></video>
        <object data="${inside}/g"></object><div style="background:url(${inside}/h.png)">x</div>`,
    },
  }),
  'scripts that fetch': (inside, port) => ({
    '/': {
      body: `<!doctype html><p>on<script>
        fetch('${inside}/a', { mode: 'no-cors' }).catch(() => {});
        navigator.sendBeacon('${inside}/b', 'x');
        try { new WebSocket('ws://127.0.0.1:${port}/c'); } catch {}
        new EventSource('${inside}/d');
        new Worker(URL.createObjectURL(new Blob(["fetch('${inside}/e', { mode: 'no-cors' })"])));
        const peer = new RTCPeerConnection({ iceServers: [{ urls: 'turn:127.0.0.1:${port}?transport=tcp', username: 'a', credential: 'b' }] });
        peer.createDataChannel('x'); peer.createOffer().then((offer) => peer.setLocalDescription(offer));
        </script>`,
    },
  }),
  'other spellings of this machine': (_inside, port) => ({
    '/': {
      body: [
        'localhost',
        'a.localhost',
        '[::1]',
        '[::ffff:127.0.0.1]',
        '2130706433',
        '0x7f.1',
        '0.0.0.0',
        '127.1',
      ]
        .map((host) => `<img src="http://${host}:${port}/x.png" width="9" height="9">`)
        .join(''),
    },
  }),
  'robots.txt and the sitemap that it names': (inside) => ({
    '/': { body: '<!doctype html><p>on' },
    '/robots.txt': { location: `${inside}/robots.txt` },
  }),
  'a feed and a manifest': (inside) => ({
    '/': {
      body: `<!doctype html><link rel="alternate" type="application/rss+xml" href="/feed"><link rel="manifest" href="/app"><p>on`,
    },
    '/feed': { location: `${inside}/feed` },
    '/app': { location: `${inside}/app` },
  }),
};

describe('pages of the public internet', () => {
  for (const [name, lure] of Object.entries(lures))
    attack('bounded', `reach nothing inside: ${name}`, async () => {
      const cwd = temporaryFolder();
      const inside = await serve({ '/x': { body: '<!doctype html><title>secret</title>' } });
      const site = await serve(lure(inside.origin, inside.address.split(':')[1]!));
      const call = ['http://kites.test/', '--map-host', `kites.test=${site.address}`];
      const { status, stdout, stderr } = await run(
        ['survey', ...call, ...oneView, '--json', '--no-bodies'],
        { cwd },
      );
      expect([0, 3], stderr).toContain(status);
      expect(site.asked).not.toEqual([]);
      const { pages, skipped } = JSON.parse(stdout) as Surveyed;
      expect([...pages, ...skipped]).not.toEqual([]);
      expect(stdout).not.toMatch(/secret|ERR_|net::/);
      // Whoever tries it in a page that is timed fares no better.
      await run(['clock', ...call, '--runs', '1', '--network', 'none'], { cwd });
      expect([inside.asked, inside.connections()]).toEqual([[], 0]);
      const told = [...pages.map(({ error }) => error), ...skipped.map(({ reason }) => reason)];
      const isInPage = JSON.stringify(lure('', '')).includes('<img');
      if (isInPage) expect(told.join()).toMatch(/this machine, where pages may not lead/);
    });

  it('use what a person allows them', async () => {
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const inside = await serve({ '/a.jpg': { type: 'image/jpeg', body: picture } });
    const site = await serve({
      '/': { body: `<!doctype html><img src="${inside.origin}/a.jpg" width="30" height="20">` },
    });
    const call = ['http://kites.test/', '--map-host', `kites.test=${site.address}`];
    const cwd = temporaryFolder();
    await runJson(['survey', ...call, ...oneView, '--allow-host', '127.0.0.1'], { cwd });
    expect(inside.asked).toContain('/a.jpg');
  });

  it('are pages of the inside where they begin there', async () => {
    const picture = await photograph(60, 40).jpeg().toBuffer();
    const other = await serve({ '/a.jpg': { type: 'image/jpeg', body: picture } });
    const site = await serve({
      '/': { body: `<!doctype html><img src="${other.origin}/a.jpg" width="30" height="20">` },
    });
    const cwd = temporaryFolder();
    await runJson(['survey', `${site.origin}/`, ...oneView], { cwd });
    expect(other.asked).toContain('/a.jpg');
  });
});
