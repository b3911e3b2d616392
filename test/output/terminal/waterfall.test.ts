import { SaxesParser } from 'saxes';
import { describe, expect, it } from 'vitest';
import { noMarkers } from '../../../src/core/load/markers.js';
import { chooseRequests } from '../../../src/core/load/request-view.js';
import type { PageRequest, Phases } from '../../../src/core/load/request.js';
import type { RequestChoice } from '../../../src/core/load/request-view.js';
import type { Run } from '../../../src/core/load/session.js';
import { pageRequest } from '../../support/page-request.js';
import { waterfallSvg } from '../../../src/output/svg/waterfall.js';
import { waterfallPairSvg } from '../../../src/output/svg/waterfall-pair.js';
import { matchRequests } from '../../../src/core/load/request-matching.js';
import { barCells, drawWaterfall } from '../../../src/output/terminal/waterfall.js';

function request(url: string, start: number, phases: Partial<Phases>): PageRequest {
  return pageRequest(url, { start, phases });
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
  const chosenOf = (top: number) => chooseRequests(run.requests, { sort: 'start', top });
  const run: Run = {
    startedAt: '2026-01-01T00:00:00.000Z',
    finalUrl: 'http://a.test/',
    status: 200,
    markers: {
      ...noMarkers(),
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
    const lines = drawWaterfall(run, chosenOf(10), { width: 100, colour: false }).split('\n');
    expect(lines[1]).toContain('first.png');
    expect(lines[2]).toContain('late.png');
    expect(Math.max(...lines.slice(1, 3).map((line) => line.length))).toBeLessThanOrEqual(100);
    expect(lines[0]!.trim()).toMatch(/^FL +D +E$/);
  });

  it('says how many requests it leaves out, and lets no control character through', () => {
    const text = drawWaterfall(run, chosenOf(1), { width: 100, colour: false });
    expect(text).toContain('1 more request with 1.0 kB; --top 2 shows all');
    expect(text).not.toContain('\u001b');
  });
});

describe('chooseRequests', () => {
  const requests = [
    { ...request('http://a.test/small.png', 0, { wait: 90 }), transferBytes: 10 },
    { ...request('http://cdn.a.test:8080/big.png', 5, { wait: 10 }), transferBytes: 9_000 },
    { ...request('http://nota.test/app.js', 9, { wait: 50 }), type: 'script' as const },
  ];
  const names = (choice: Omit<RequestChoice, 'top'>, top = 9) =>
    chooseRequests(requests, { ...choice, top }).rows.map(({ url }) => url.split('/').at(-1));

  it('orders by start, bytes or time', () => {
    expect(names({ sort: 'start' })).toEqual(['small.png', 'big.png', 'app.js']);
    expect(names({ sort: 'bytes' })).toEqual(['big.png', 'app.js', 'small.png']);
    expect(names({ sort: 'time' })).toEqual(['small.png', 'app.js', 'big.png']);
  });

  it('looks at types and at hosts with what is below them, and says what it leaves out', () => {
    expect(names({ sort: 'start', only: ['script'] })).toEqual(['app.js']);
    expect(names({ sort: 'start', hosts: ['a.test'] })).toEqual(['small.png', 'big.png']);
    expect(names({ sort: 'start', hosts: ['cdn.a.test:8080'] })).toEqual(['big.png']);
    const chosen = chooseRequests(requests, { sort: 'bytes', only: ['image'], top: 1 });
    expect(chosen).toMatchObject({ left: { count: 1, bytes: 10 }, others: 1 });
  });
});

/** What an SVG says at each place; throws when it is no sound XML. */
function wordsOf(svg: string): { words: string; x: number; y: number; fill: string }[] {
  const found: { words: string; x: number; y: number; fill: string }[] = [];
  let place = { x: 0, y: 0, fill: '' };
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', ({ attributes }) => {
    const fill = typeof attributes['fill'] === 'string' ? attributes['fill'] : '';
    place = { x: Number(attributes['x']), y: Number(attributes['y']), fill };
  });
  parser.on('text', (words) => {
    if (words.trim() !== '') found.push({ words, ...place });
  });
  parser.write(svg).close();
  return found;
}

describe('waterfallPairSvg', () => {
  it('has both loads on one axis, and says what became of each request', () => {
    const names = ['kept.png', 'less.png', 'gone.png', 'new.png'];
    const [kept, less, gone, fresh] = names.map((name) => `http://a.test/${name}`);
    const before = [
      request(kept!, 0, { wait: 100 }),
      pageRequest(less!, { start: 0, phases: { receive: 2_000 }, transferBytes: 90_000 }),
      request(gone!, 0, { wait: 100 }),
    ];
    const after = [
      request(kept!, 0, { wait: 100 }),
      pageRequest(less!, { start: 0, phases: { receive: 500 }, transferBytes: 10_000 }),
      request(fresh!, 0, { wait: 100 }),
    ];
    const side = (label: string, requests: PageRequest[]) => ({
      label,
      markers: noMarkers(),
      chosen: chooseRequests(requests, { sort: 'start', top: 9 }),
    });
    const run = (requests: PageRequest[]) => ({ requests, largest: null });
    const words = wordsOf(
      waterfallPairSvg({
        title: 'x',
        subtitle: '',
        before: side('was', before),
        after: side('is', after),
        changes: matchRequests(run(before), run(after)),
      }),
    );
    const beside = (name: string, nth = 0) => {
      const row = words.filter((one) => one.words === `/${name}`)[nth]!;
      return words.filter(({ y, x }) => y === row.y && x > row.x).at(-1)!.words;
    };
    expect(beside('gone.png')).toBe('gone');
    expect(beside('new.png')).toBe('new');
    expect(beside('less.png', 1)).toBe('−80 kB, 1.50 s earlier');
    expect(beside('kept.png', 1)).toBe('100 ms');
    const axes = words.filter((one) => one.words === '1.00 s');
    expect(new Set(axes.map(({ x }) => x)).size).toBe(1);
  });
});

describe('waterfallSvg', () => {
  it('is sound XML whatever pages call themselves, with every phase at its place', () => {
    const hostile = request('http://a.test/</text><script>alert(1)</script>&"\u0007', 100, {
      wait: 300,
      receive: 100,
    });
    const svg = waterfallSvg({
      title: '<kites> & "bays"',
      subtitle: '',
      markers: { ...noMarkers(), load: 500 },
      chosen: chooseRequests([hostile], { sort: 'start', top: 5 }),
    });
    const bars: { x: number; width: number }[] = [];
    const parser = new SaxesParser();
    parser.on('error', (error) => {
      throw error;
    });
    parser.on('opentag', ({ name, attributes }) => {
      expect(name).not.toBe('script');
      if (name === 'rect' && attributes['height'] === '12' && attributes['y'] !== '80')
        bars.push({ x: Number(attributes['x']), width: Number(attributes['width']) });
    });
    parser.write(svg).close();
    expect(bars).toHaveLength(2);
    const [wait, receive] = bars;
    expect(wait!.width / receive!.width).toBeCloseTo(3, 1);
    expect(wait!.x + wait!.width).toBeCloseTo(receive!.x, 0);
  });

  it('sets the names of requests that failed in a colour of their own', () => {
    const requests = [
      pageRequest('http://a.test/kite.png', {}),
      pageRequest('http://a.test/gone.png', { status: 404 }),
      pageRequest('http://b.test/refused.js', { status: 0, failure: 'connection refused' }),
    ];
    const words = wordsOf(
      waterfallSvg({
        ...{ title: 'x', subtitle: '', markers: noMarkers() },
        chosen: chooseRequests(requests, { sort: 'start', top: 9 }),
      }),
    );
    const fillOf = (name: string) => words.find(({ words }) => words.includes(name))!.fill;
    expect(fillOf('gone.png')).toBe(fillOf('refused.js'));
    expect(fillOf('gone.png')).not.toBe(fillOf('kite.png'));
  });
});
