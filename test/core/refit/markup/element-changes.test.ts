import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changesBetween } from '../../../../src/core/refit/markup/element-changes.js';
import { withAttributes } from '../../../../src/core/slots/element-markup.js';
import type { Attributes, ElementMarkup } from '../../../../src/core/slots/element-markup.js';

const anyAttributes = fc.uniqueArray(
  fc.tuple(fc.constantFrom('src', 'srcset', 'sizes', 'class', 'alt', 'loading'), fc.string()),
  { selector: ([name]) => name },
);

describe('the changes of an element', () => {
  it('lead from one to the other, whatever its attributes are', () => {
    fc.assert(
      fc.property(anyAttributes, anyAttributes, (before, after) => {
        const element = (attributes: Attributes): ElementMarkup => ({ attributes, picture: null });
        const changes = changesBetween(element(before), element(after));
        const values = Object.fromEntries(
          changes.map((change) => {
            if (change.action === 'set') return [change.name, change.value];
            if (change.action === 'remove') return [change.name, null];
            throw new Error(change.action);
          }),
        );
        expect(new Map(withAttributes(before, values))).toEqual(new Map(after));
      }),
    );
  });

  it('tell of a picture that is put around it, and of its sources', () => {
    const before: ElementMarkup = { attributes: [['src', 'a.jpg']], picture: null };
    const source: Attributes = [
      ['type', 'image/webp'],
      ['srcset', 'a.webp'],
    ];
    const after = { ...before, picture: { attributes: [], sources: [source] } };
    expect(changesBetween(before, after)).toEqual([
      { action: 'wrap', element: 'img' },
      { action: 'add', element: 'source', tag: '<source type="image/webp" srcset="a.webp">' },
    ]);
    const other = { ...before, picture: { attributes: [], sources: [[...source.slice(0, 1)]] } };
    expect(changesBetween(after, other)).toEqual([
      { action: 'remove', element: 'source', name: 'srcset' },
    ]);
  });
});
