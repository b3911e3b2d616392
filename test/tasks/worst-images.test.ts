import { describe, expect, it } from 'vitest';
import { failedEncode, noSteps } from '../../src/core/survey/failed-encode.js';
import type { Encoded } from '../../src/core/survey/encoded.js';
import type { PageRecord } from '../../src/store/page-writer.js';
import { WorstImages } from '../../src/tasks/survey/worst-images.js';

/** A page on which each of these contents was fetched from its address. */
function pageWith(images: Readonly<Record<string, string>>): Pick<PageRecord, 'visits'> {
  const responses = Object.entries(images).map(([contentHash, url]) => ({ contentHash, url }));
  return { visits: [{ responses }] } as unknown as Pick<PageRecord, 'visits'>;
}

const encoded = (contentHash: string, best: number) =>
  ({ contentHash, problem: null, steps: { ...noSteps, best } }) as Encoded;

describe('the worst images of a survey that is under way', () => {
  it('are those that waste the most, the worst first, each once', () => {
    const worst = new WorstImages();
    worst.note(pageWith({ a: '/a.jpg', b: '/b.jpg', c: '/c.jpg', d: '/d.jpg' }));
    worst.add(encoded('a', 900), 1_000);
    worst.add(encoded('b', 100), 2_000);
    worst.add(encoded('c', 100), 500);
    worst.add(encoded('d', 10), 800);
    expect(worst.top.map(({ url }) => url)).toEqual(['/b.jpg', '/d.jpg', '/c.jpg']);
    // A later page needs more of it.
    worst.add(encoded('b', 1_950), 2_000);
    expect(worst.top).toEqual([
      { url: '/d.jpg', bytes: 800, needed: 10, isEstimate: false },
      { url: '/c.jpg', bytes: 500, needed: 100, isEstimate: false },
      { url: '/a.jpg', bytes: 1_000, needed: 900, isEstimate: false },
    ]);
  });

  it('are told as estimates until their files are found', () => {
    const worst = new WorstImages();
    worst.note(pageWith({ a: '/a.jpg' }));
    worst.add(encoded('a', 200), 1_000, true);
    expect(worst.top).toEqual([{ url: '/a.jpg', bytes: 1_000, needed: 200, isEstimate: true }]);
    worst.add(encoded('a', 210), 1_000);
    expect(worst.top).toEqual([{ url: '/a.jpg', bytes: 1_000, needed: 210, isEstimate: false }]);
  });

  it('are none that cannot be encoded, or that no page has fetched', () => {
    const worst = new WorstImages();
    worst.note(pageWith({ a: '/a.jpg' }));
    const file = { contentHash: 'a', mediaType: 'image/jpeg' } as Parameters<
      typeof failedEncode
    >[0];
    worst.add(failedEncode(file, null, 'it is cut off'), 1_000);
    worst.add(encoded('unknown', 1), 1_000);
    expect(worst.top).toEqual([]);
  });
});
