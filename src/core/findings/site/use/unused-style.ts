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
    computed: `A rule is used if its selector matches an element of one page in one view, whatever the width of the window, the medium and the state (:hover); elements are looked for when the page has been scrolled and swept. A rule for a name that was there only for a while (a class set on scrolling) counts as used, and so does one whose elements cannot be looked for (:host). ${unusedCost}`,
    ignore:
      'For what the survey does not see: what opens on a click, pages behind a login, pages that were not surveyed.',
  },
  step: () => 'take out the rules that no page uses',
  checkFile: (file, site) => unusedEvidence(file, 'style', site),
  describe: ({ share, unusedBytes, wireBytes, pages }, { bytes, count }) =>
    `${Math.round(100 * share)} % of it (${bytes(unusedBytes)} of ${bytes(wireBytes)} on the wire) are rules that match nothing on ${count(pages, 'page')}`,
});
