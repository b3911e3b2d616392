import { describe, expect, it } from 'vitest';
import { interactiveAt } from '../../../src/core/load/interactive.js';
import type { WatchedLoad } from '../../../src/core/load/interactive.js';

const calm: WatchedLoad = {
  firstContentfulPaint: 1_000,
  domContentLoaded: 800,
  longTasks: [],
  requests: [],
  watched: 6_000,
};
const get = (start: number, end: number | null, method = 'GET') => ({ method, start, end });

describe('interactiveAt', () => {
  it('is first contentful paint of a page that rests, and never before DOMContentLoaded', () => {
    expect(interactiveAt(calm)).toBe(1_000);
    expect(interactiveAt({ ...calm, domContentLoaded: 1_400 })).toBe(1_400);
  });

  it('is the end of the last long task before five seconds of rest', () => {
    const longTasks = [
      { start: 900, end: 1_100 },
      { start: 3_000, end: 3_300 },
      { start: 9_000, end: 9_200 },
    ];
    expect(interactiveAt({ ...calm, longTasks, watched: 9_500 })).toBe(3_300);
    expect(interactiveAt({ ...calm, longTasks: longTasks.slice(0, 2), watched: 8_299 })).toBeNull();
  });

  it('waits for the network to thin out, but keeps the end of the last long task', () => {
    const requests = [get(500, 4_000), get(500, 4_500), get(500, 5_000)];
    const load = { ...calm, requests, longTasks: [{ start: 1_200, end: 1_300 }] };
    expect(interactiveAt({ ...load, watched: 8_999 })).toBeNull();
    expect(interactiveAt({ ...load, watched: 9_000 })).toBe(1_300);
    // Two that never end, and what is no GET, are none of its business.
    const endless = [get(500, null), get(500, null), get(500, null, 'POST')];
    expect(interactiveAt({ ...calm, requests: endless })).toBe(1_000);
  });

  it('is not known of a page that was not painted, or not seen to rest', () => {
    expect(interactiveAt({ ...calm, firstContentfulPaint: null })).toBeNull();
    expect(interactiveAt({ ...calm, watched: 5_999 })).toBeNull();
  });
});
