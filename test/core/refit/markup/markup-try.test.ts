import { describe, expect, it } from 'vitest';
import { problemOf } from '../../../../src/core/refit/markup/markup-try.js';
import type { MarkupTry } from '../../../../src/core/refit/markup/markup-try.js';

const box = { left: 10, top: 20, width: 300, height: 200 };
const image = (url: string) => ({ box, drawnWidth: 300, url, pixels: 0, isLoaded: true });
const held: MarkupTry = { before: image('/old'), after: image('/620'), moved: [] };
const files = {
  density: 2,
  enough: 2,
  fileAt: (url: string) => {
    const width = Number(url.slice(1)) || (url === '/old' ? 3_000 : undefined);
    return width ? { width, offered: [300, 620, 900] } : undefined;
  },
};

describe('markup that was tried in its page', () => {
  it('holds if nothing moved and the file is the one that is meant', () => {
    expect(problemOf(held, files)).toBeNull();
    // What rounds to another pixel is no change.
    const near = { ...held.after, box: { ...box, height: 200.9 } };
    expect(problemOf({ ...held, after: near }, files)).toBeNull();
  });

  it.each<[string, Partial<MarkupTry>, RegExp]>([
    ['its file is missing', { after: { ...image('/620'), isLoaded: false } }, /does not arrive/],
    [
      'its box changes',
      { after: { ...image('/620'), box: { ...box, width: 302 } } },
      /its box changes from 300×200 at 10, 20 to 302×200/,
    ],
    [
      'something around it moves',
      { moved: [{ selector: 'footer', from: box, to: { ...box, top: 40 } }] },
      /footer moves/,
    ],
    ['it gets softer', { after: image('/300') }, /softer: 300 pixels across where 600/],
    ['it takes more than it needs', { after: image('/900') }, /chooses 900 .* to choose 620/],
    ['it takes what nobody offers', { after: image('/else') }, /not offered/],
  ])('does not hold if %s', (_, change, words) => {
    expect(problemOf({ ...held, ...change }, files)).toMatch(words);
  });

  it('is as sharp as it was where the original had no more pixels', () => {
    const small = { ...files, fileAt: () => ({ width: 300, offered: [300] }) };
    expect(problemOf({ ...held, after: image('/300') }, small)).toBeNull();
  });

  it('may have dense screens choose as if they had fewer pixels', () => {
    expect(problemOf(held, { ...files, density: 3 })).toBeNull();
    expect(problemOf({ ...held, after: image('/900') }, { ...files, density: 3 })).toBeNull();
  });
});
