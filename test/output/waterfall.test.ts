import { describe, expect, it } from 'vitest';
import { noPhases } from '../../src/core/request.js';
import type { PageRequest } from '../../src/core/request.js';
import type { Run } from '../../src/core/session.js';
import { barCells, drawWaterfall } from '../../src/output/terminal/waterfall.js';

function request(url: string, start: number, phases: Partial<PageRequest['phases']>): PageRequest {
  const all = { ...noPhases, ...phases };
  return {
    url,
    method: 'GET',
    type: 'image',
    status: 200,
    statusText: 'OK',
    mediaType: 'image/png',
    protocol: 'http/1.1',
    start,
    end: start + Object.values(all).reduce((sum, phase) => sum + phase, 0),
    phases: all,
    transferBytes: 1000,
    bodyBytes: 900,
    fromCache: false,
    priority: 'Low',
    initiator: 'parser',
    thirdParty: false,
    renderBlocking: false,
    requestHeaders: [],
    responseHeaders: [],
    serverAddress: '',
    redirectsTo: '',
    failure: null,
  };
}

describe('barCells', () => {
  it('cuts a bar into phases at their places', () => {
    const cells = barCells(
      request('http://a.test/', 20, { blocked: 10, wait: 30, receive: 20 }),
      100,
      10,
    );
    expect(cells.map((phase) => phase?.[0] ?? ' ').join('')).toBe('  bwwwrr  ');
  });

  it('gives a column to the phase that takes most of it, and shows even the shortest request', () => {
    const cells = barCells(request('http://a.test/', 0, { blocked: 3, wait: 7 }), 100, 10);
    expect(cells[0]).toBe('wait');
    const short = barCells(request('http://a.test/', 55, { receive: 1 }), 1000, 10);
    expect(short.filter(Boolean)).toEqual(['receive']);
  });
});

describe('drawWaterfall', () => {
  const run: Run = {
    startedAt: '2026-01-01T00:00:00.000Z',
    finalUrl: 'http://a.test/',
    status: 200,
    markers: {
      ttfb: 10,
      firstContentfulPaint: 500,
      largestContentfulPaint: 500,
      domContentLoaded: 600,
      load: 900,
      interactive: null,
      blockingTime: 0,
      layoutShift: 0,
      quiet: 1000,
    },
    requests: [
      request('http://a.test/late.png', 400, { wait: 300, receive: 300 }),
      request('http://a.test/\u001b[2Jfirst.png', 0, { wait: 100 }),
    ],
    failure: null,
  };

  it('has a row a request in the order of their starts, as wide as the screen', () => {
    const lines = drawWaterfall(run, 10, { width: 100, colour: false }).split('\n');
    expect(lines[1]).toContain('first.png');
    expect(lines[2]).toContain('late.png');
    expect(Math.max(...lines.slice(1, 3).map((line) => line.length))).toBeLessThanOrEqual(100);
    expect(lines[0]!.trim()).toMatch(/^FL +E$/);
  });

  it('says how many requests it leaves out, and lets no control character through', () => {
    const text = drawWaterfall(run, 1, { width: 100, colour: false });
    expect(text).toContain('1 more requests: --top 2 draws them all');
    expect(text).not.toContain('\u001b');
  });
});
