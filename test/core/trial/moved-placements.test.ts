import { describe, expect, it } from 'vitest';
import { movedPlacements } from '../../../src/core/trial/moved-placements.js';
import type { PlacementSize } from '../../../src/core/trial/moved-placements.js';

const image = (selector: string, width: number, height = 100): PlacementSize => ({
  ...{ kind: 'img', selector, url: `http://bay.test/${width}.png` },
  slot: { width, height },
  ...{ left: 0, top: 0 },
});

describe('placements of both sides of a trial', () => {
  it('are paired in the order of the document, whatever is put around them', () => {
    const before = [
      image('body > img:nth-of-type(1)', 300),
      image('body > img:nth-of-type(2)', 200),
    ];
    const after = [image('body > picture > img', 300.6), image('body > img', 220)];
    expect(movedPlacements(before, after)).toEqual({
      moved: [{ before: before[1], after: after[1] }],
      unpaired: 0,
    });
  });

  it('are paired by their selectors where one side has more', () => {
    const before = [image('main > img', 300), image('footer > img', 80)];
    const after = [image('footer > picture > img', 80, 140)];
    expect(movedPlacements(before, after)).toEqual({
      moved: [{ before: before[1], after: after[0] }],
      unpaired: 1,
    });
  });
});
