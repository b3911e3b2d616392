import { describe, expect, it } from 'vitest';
import { Pacer, retryAfterOf } from '../../src/crawl/pacer.js';
import type { Clock } from '../../src/crawl/pacer.js';

/** A clock on which time passes only while everybody waits. */
function stillClock(): Clock {
  let time = 0;
  const sleepers: { until: number; wake: () => void }[] = [];
  const pass = () => {
    sleepers.sort((a, b) => a.until - b.until);
    const next = sleepers.shift();
    if (!next) return;
    time = Math.max(time, next.until);
    next.wake();
  };
  return {
    now: () => time,
    pause: (milliseconds, signal) =>
      new Promise((wake) => {
        if (signal?.aborted) return wake();
        sleepers.push({ until: time + milliseconds, wake });
        setImmediate(pass);
      }),
  };
}

describe('Pacer', () => {
  it('keeps a host to its pace, however many ask, and another host to its own', async () => {
    const clock = stillClock();
    const pacer = new Pacer(60, clock);
    const times: [string, number][] = [];
    const turn = async (url: string) => {
      await pacer.turn(url);
      times.push([url, clock.now()]);
    };
    await Promise.all(
      ['http://a.test/1', 'http://a.test/2', 'http://b.test/1', 'http://a.test/3'].map(turn),
    );
    expect(times).toEqual([
      ['http://a.test/1', 0],
      ['http://b.test/1', 0],
      ['http://a.test/2', 60],
      ['http://a.test/3', 120],
    ]);
  });

  it('leaves a host alone for as long as it wants', async () => {
    const clock = stillClock();
    const pacer = new Pacer(0, clock);
    pacer.leaveAlone('http://a.test/', 80);
    await pacer.turn('http://a.test/x');
    expect(clock.now()).toBe(80);
  });

  it('ends at once when it is stopped', async () => {
    const pacer = new Pacer(0);
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
