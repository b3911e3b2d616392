import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { DuePage } from '../../src/core/survey/survey.js';
import { PageQueue } from '../../src/crawl/page-queue.js';

/** A page that is added, or `null` where one is taken. */
type Step = Omit<DuePage, 'url'> | null;

const found = fc.record({ depth: fc.integer({ min: 1, max: 4 }), visits: fc.constant(null) });
const named = fc.record({
  depth: fc.constant(0),
  visits: fc.option(fc.integer({ min: 0, max: 3 })),
});

/** Pages of one pattern, added and taken in any order; where none is left, `undefined` is taken. */
function taken(steps: readonly Step[]): (string | undefined)[] {
  const queue = new PageQueue();
  const before = (one: DuePage, other: DuePage) =>
    one.depth - other.depth || (other.visits ?? -1) - (one.visits ?? -1);
  const model: DuePage[] = [];
  return steps.flatMap((step, at) => {
    expect(queue.length).toBe(model.length);
    if (step) {
      const due = { ...step, url: `http://a.test/kites/${at}` };
      queue.add(due);
      model.push(due);
      return [];
    }
    // The sort is stable: what was found first stays first.
    const next = model.toSorted(before)[0];
    if (next) model.splice(model.indexOf(next), 1);
    expect([...queue.left()].map(({ due }) => due.url)).toHaveLength(model.length + (next ? 1 : 0));
    const due = queue.next();
    expect(due?.url).toBe(next?.url);
    return [due?.url];
  });
}

it('hands out the pages that a person named by their visits, then the nearest, and of equals the first', () => {
  const steps = fc.array(fc.oneof(found, named, fc.constant(null)), {
    maxLength: 60,
    size: 'max',
  });
  let handedOut = 0;
  fc.assert(
    fc.property(steps, (some) => {
      handedOut += taken(some).filter((url) => url !== undefined).length;
    }),
    { seed: 20_261_128, numRuns: 300 },
  );
  expect(handedOut).toBeGreaterThan(1000);
});
