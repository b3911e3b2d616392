import { describe, expect, it } from 'vitest';
import { Pacer, retryAfterOf } from '../../src/crawl/pacer.js';

const now = () => performance.now();

describe('Pacer', () => {
  it('keeps a host to its pace, however many ask', async () => {
    const pacer = new Pacer(60);
    const times: number[] = [];
    const turn = async (url: string) => {
      await pacer.turn(url);
      times.push(now());
    };
    await Promise.all([turn('http://a.test/1'), turn('http://a.test/2'), turn('http://a.test/3')]);
    // Timers of the machine may fire a millisecond early.
    expect(times[1]! - times[0]!).toBeGreaterThan(58);
    expect(times[2]! - times[1]!).toBeGreaterThan(58);
  });

  it('leaves a host alone for as long as it wants, and ends at once when it is stopped', async () => {
    const pacer = new Pacer(0);
    pacer.leaveAlone('http://a.test/', 80);
    const began = now();
    await pacer.turn('http://a.test/x');
    expect(now() - began).toBeGreaterThan(78);
    pacer.leaveAlone('http://a.test/', 60_000);
    const stop = new AbortController();
    const waiting = pacer.turn('http://a.test/x', stop.signal);
    stop.abort();
    await waiting;
  });
});

describe('retryAfterOf', () => {
  const moment = Date.parse('2026-11-23T10:00:00Z');
  it.each([
    ['120', 120_000],
    ['Mon, 23 Nov 2026 10:00:30 GMT', 30_000],
    ['Mon, 23 Nov 2026 09:00:00 GMT', 0],
    ['soon', null],
    [undefined, null],
  ])('%s is %s ms', (value, milliseconds) => {
    expect(retryAfterOf(value, moment)).toBe(milliseconds);
  });
});
