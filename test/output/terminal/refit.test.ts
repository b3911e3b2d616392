import { describe, expect, it } from 'vitest';
import { drawRanking } from '../../../src/output/terminal/rank.js';
import { drawRefit } from '../../../src/output/terminal/refit.js';
import type { RefitView } from '../../../src/output/views/refit.js';
import { rankViewOf } from '../../support/ranked.js';

const screen = { width: 120, colour: false };
const nothing: RefitView = {
  folder: 'out',
  survey: 'first',
  files: [],
  kept: [],
  notMade: [],
  collisions: [],
  variants: [],
  worklist: [],
  papers: [],
  sheets: [],
  zipped: null,
  markup: null,
  unchanged: 0,
  dryRun: false,
  interrupted: false,
  top: 8,
};
const kept = (reason: string, times: number) =>
  Array.from({ length: times }, (_, at) => ({ url: `http://a.test/${at}.jpg`, reason }));

describe('a refit as text', () => {
  it('says of no files that there are none, and draws no table', () => {
    const text = drawRefit(nothing, screen);
    expect(text).toMatch(/^No files were made in out\.$/m);
    expect(text).not.toMatch(/bytes|–/);
  });

  it('gives each reason once, in the singular or the plural', () => {
    const reasons = [...kept('no element shows it', 1), ...kept('it belongs to a third party', 3)];
    const text = drawRefit({ ...nothing, kept: reasons }, screen);
    expect(text).toMatch(
      /^3 images stay as they are; the reason for each: it belongs to a third party\n1 image stays as it is: no element shows it$/m,
    );
  });
});

describe('a ranking of a survey without images', () => {
  it('proposes no refit', () => {
    expect(drawRanking(rankViewOf([]), screen)).not.toContain('zealous-lynx refit');
  });
});
