import { fileFinding } from '../site-case.js';
import { unusedCost, unusedEvidence } from './unused-text.js';

/** A style sheet with many rules that no page of the survey has elements for. */
export const unusedStyle = fileFinding({
  id: 'unused-style',
  title: 'style sheet that is mostly not used',
  doer: 'markup',
  fix: 'Take out the rules that no template needs, and load what one template needs there alone.',
  isWork: true,
  docs: {
    meaning: 'A style sheet has rules whose selectors match no element on any page of the survey.',
    why: 'Nothing is drawn before all style sheets have come and been read.',
    computed: `The browser counts the rules that match while each page is loaded and scrolled, in two views: the one that is swept over all widths, and the most visited one with touch (in all views where none has a mouse). A rule that matches in one of them, on one page, is used. ${unusedCost}`,
    ignore:
      'For what the survey does not see: what opens on a click, pages behind a login, pages that were not surveyed.',
  },
  step: () => 'take out the rules that no page uses',
  checkFile: (file, site) => unusedEvidence(file, 'style', site),
  describe: ({ share, unusedBytes, wireBytes, pages }, { bytes, count }) =>
    `${Math.round(100 * share)} % of it (${bytes(unusedBytes)} of ${bytes(wireBytes)} on the wire) are rules that match nothing on ${count(pages, 'page')}`,
});
