import type { ElementMarkup } from '../../../../src/core/slots/element-markup.js';
import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../../src/core/policy/policy.js';
import { rankImages } from '../../../../src/core/rank/ranking.js';
import { fixOf } from '../../../../src/core/refit/work/fix.js';
import { plainSketch, surveyOf } from '../../../support/survey-facts.js';

function allStepsOf(change: Partial<typeof plainSketch>): readonly string[] {
  const { images } = rankImages(surveyOf([{ ...plainSketch, ...change }]), defaultPolicy);
  return fixOf(images[0]!, 5).steps;
}

/** Its name, 0-0.jpg, is the only finding on the image of the sketch. */
const betterName = 'give the file a name that says what the picture shows';
const aboutTheFile = (steps: readonly string[]) => steps.filter((step) => step !== betterName);
const stepsOf = (change: Partial<typeof plainSketch>) => aboutTheFile(allStepsOf(change));

describe('what to do about an image', () => {
  it('names the format, the size, the widths and the text for sizes', () => {
    expect(stepsOf({ bytes: 90_000 })).toEqual([
      'send it as webp, 200×100 instead of 1000×500',
      'offer it in widths of 100, 200 px (srcset) with sizes="100px"',
    ]);
  });

  it('begins with what should not be sent at all', () => {
    expect(stepsOf({ shown: [false, false] })).toEqual([
      'do not send it: no page shows it in any view',
    ]);
    expect(stepsOf({ addresses: 3 })[0]).toBe('link to one of its 3 addresses everywhere');
  });

  it('asks a third party, and leaves alone what is right', () => {
    expect(stepsOf({ thirdParty: true })[0]).toMatch(/^ask the third party: send it as webp/);
    expect(stepsOf({ bytes: 300, best: 250 })).toEqual([]);
  });

  it('keeps the width of what the site offers in several widths, and says the sizes first', () => {
    const element: ElementMarkup = {
      attributes: [
        ['srcset', '/0-1.jpg 400w, /0-0.jpg 1000w'],
        ['sizes', '100vw'],
      ],
      picture: null,
    };
    const facts = surveyOf(
      [{ ...plainSketch, bytes: 90_000, best: 8_000, pages: [0] }],
      [],
      () => element,
    );
    const { steps } = fixOf(rankImages(facts, defaultPolicy).images[0]!, 5);
    expect(steps.slice(0, 2)).toEqual([
      'write sizes="100px": the site offers narrower files',
      'encode it again at its own width (1000 px), as webp where it is read',
    ]);
  });

  it('ends with what findings ask for', () => {
    const steps = allStepsOf({ bytes: 90_000 });
    expect(steps).toHaveLength(3);
    expect(steps.at(-1)).toBe(betterName);
    expect(allStepsOf({ bytes: 300, best: 250 })).toEqual([betterName]);
  });
});
