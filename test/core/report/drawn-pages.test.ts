import { describe, expect, it } from 'vitest';
import { drawnPages } from '../../../src/core/report/drawn-pages.js';

describe('the pages that a report draws', () => {
  it('are all of them where there are few, also those without an image', () => {
    expect(drawnPages(['/b'], ['/a', '/b', '/c'], 3)).toEqual(new Set(['/b', '/a', '/c']));
  });

  it('are those that waste the most where there are many', () => {
    expect(drawnPages(['/c', '/b'], ['/a', '/b', '/c'], 2)).toEqual(new Set(['/c', '/b']));
    expect(drawnPages(['/c'], ['/a', '/b', '/c'], 2)).toEqual(new Set(['/c', '/a']));
  });
});
