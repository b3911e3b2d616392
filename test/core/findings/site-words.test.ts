import { describe, expect, it } from 'vitest';
import { findingKind, findingKinds } from '../../../src/core/findings/index.js';
import { findingWords } from '../../../src/output/words/findings.js';
import { toldOfFiles } from './told-of-files.js';
import { toldOfPages } from './told-of-pages.js';

const told = [...toldOfFiles, ...toldOfPages];

describe('the words of findings on files', () => {
  it.each(told)('tell %s %j', (id, data, words, step) => {
    expect(findingWords({ id, data })).toBe(words);
    expect(findingKind(id)!.step?.(data)).toBe(step);
  });

  it('are there for every kind', () => {
    const ids = new Set(told.map(([id]) => id));
    expect(ids).toEqual(new Set(findingKinds.site.map(({ id }) => id)));
  });
});
