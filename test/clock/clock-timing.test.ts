import { describe, expect, it } from 'vitest';
import { delayedSite, delays } from '../support/delayed-site.js';
import type { ClockDocument } from '../support/delayed-site.js';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';

/** At least the delay, which is certain, and not so much more that it would be another number. */
function expectDelay(measured: number | null | undefined, delay: number): void {
  expect(measured).toBeGreaterThanOrEqual(delay - 2);
  expect(measured).toBeLessThan(delay + 200);
}

describe('clock', () => {
  // A machine that stands still for a fifth of a second makes a true number look wrong: it is asked again.
  it('shows the delays that the server was built with', { retry: 2 }, async () => {
    const cwd = temporaryFolder();
    const { origin, asked } = await serve(await delayedSite());
    const session = await runJson<ClockDocument>(
      ['clock', `${origin}/`, '--runs', '3', '--network', 'none', '--label', 'one'],
      { cwd },
    );
    expect(schemaErrors('clock', session)).toEqual([]);
    // Three that count and one before them that does not, all of them cold.
    expect(asked.filter((path) => path === '/drip.jpg')).toHaveLength(4);
    expect(session.runs.map(({ failure }) => failure)).toEqual([null, null, null]);
    for (const { hostLoad } of session.runs) expect(hostLoad).toBeGreaterThanOrEqual(0);

    const request = (path: string) => session.requests.find(({ url }) => url === origin + path)!;
    expectDelay(request('/').phases['wait'], delays.page);
    expectDelay(request('/slow.css').phases['wait'], delays.style);
    expectDelay(request('/drip.jpg').phases['receive'], delays.drip);
    expectDelay(request('/late.gif').phases['wait'], delays.late);
    expect(request('/slow.css').renderBlocking).toBe(true);
    expect(request('/moved.jpg').status).toBe(302);
    expect(request('/small.jpg')).toMatchObject({ initiator: 'redirect', type: 'image' });
    expect(request('/none.jpg').status).toBe(404);
    for (const { phases, start, end } of session.requests) {
      const sum = Object.values(phases).reduce((all, phase) => all + phase, 0);
      expect(Math.abs(sum - (end - start))).toBeLessThan(0.01);
    }

    const { markers, bytesByType, bytes, requestCount } = session.median;
    expectDelay(markers['ttfb'], delays.page);
    expect(markers['firstContentfulPaint']).toBeGreaterThan(delays.page + delays.style);
    expect(markers['largestContentfulPaint']).toBeGreaterThanOrEqual(
      markers['firstContentfulPaint']!,
    );
    expect(markers['load']).toBeGreaterThan(delays.page + delays.drip);
    expect(markers['quiet']).toBeGreaterThan(delays.page + 100 + delays.late);
    expect(markers['interactive']).toBeNull();
    const said = (id: string) => session.findings.filter((finding) => finding.id === id);
    expect(said('error').map(({ url }) => url)).toEqual([`${origin}/none.jpg`]);
    expect(said('redirect').map(({ url }) => url)).toEqual([`${origin}/moved.jpg`]);
    expect(said('heavy-image').map(({ url }) => url)).toEqual([`${origin}/drip.jpg`]);
    const [late] = said('long-wait').filter(({ url }) => url === `${origin}/late.gif`);
    expectDelay(late?.cost, delays.late);
    expect(Object.values(bytesByType).reduce((sum, part) => sum + part, 0)).toBe(bytes);
    expect(requestCount).toBe(session.requests.length);
  });

  // The same holds for these two, which wait for a page to come to rest, and compare two loads.
  it(
    'tells when a page became interactive, and what its largest paint was of',
    { retry: 2 },
    async () => {
      const cwd = temporaryFolder();
      const picture = await photograph(400, 300).jpeg().toBuffer();
      const { origin } = await serve({
        '/': {
          body: `<!doctype html><h1>Kites</h1><img id="hero" src="/a.jpg">
          <script>setTimeout(() => { const end = Date.now() + 300; while (Date.now() < end); }, 700)</script>`,
        },
        '/a.jpg': { type: 'image/jpeg', body: picture },
      });
      const { runs } = await runJson<{
        runs: { markers: Record<string, number>; largest: unknown }[];
      }>(['clock', `${origin}/`, '--runs', '1', '--network', 'none', '--interactive'], { cwd });
      const { markers, largest } = runs[0]!;
      expect(largest).toEqual({ selector: '#hero', url: `${origin}/a.jpg` });
      expect(markers['interactive']).toBeGreaterThanOrEqual(1_000);
      expect(markers['interactive']).toBeLessThan(2_500);
      expect(markers['blockingTime']).toBeGreaterThanOrEqual(245);
      expect(markers['firstPaint']).toBeLessThanOrEqual(markers['firstContentfulPaint']!);
      expect(markers['lastByte']).toBeGreaterThan(0);
      expect(markers['lastByte']).toBeLessThanOrEqual(markers['quiet']!);
    },
  );

  it('slows the line and the processor as it was told', { retry: 2 }, async () => {
    const cwd = temporaryFolder();
    const picture = await photograph(500, 400).png().toBuffer();
    const { origin } = await serve({
      '/': { body: '<!doctype html><img src="/a.png">' },
      '/a.png': { type: 'image/png', body: picture },
    });
    const clock = (...more: string[]) =>
      runJson<ClockDocument>(['clock', `${origin}/`, '--runs', '1', ...more], { cwd });
    const plain = await clock('--network', 'none');
    const shaped = await clock('--network', 'dsl', '--cpu', '2');
    const seconds = (picture.length * 8) / 6000;
    expect(shaped.median.markers['load']).toBeGreaterThan(seconds * 0.9);
    expect(shaped.median.markers['load']).toBeGreaterThan(
      plain.median.markers['load']! + seconds / 2,
    );
    expect(shaped.median.markers['ttfb']).toBeGreaterThanOrEqual(44);
    expect(shaped.median.bytes).toBe(plain.median.bytes);
  });
});
