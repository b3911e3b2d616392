import { fileFinding } from '../site-case.js';
import { unusedCost, unusedEvidence } from './unused-text.js';

/** A script with many functions that no page of the survey calls. */
export const unusedScript = fileFinding({
  id: 'unused-script',
  title: 'script that is mostly not used',
  doer: 'markup',
  fix: 'Take out what no template needs, and load the rest where and when it is needed (import()).',
  isWork: true,
  docs: {
    meaning:
      'A script has functions that no page of the survey calls while it loads and is scrolled.',
    why: 'They are sent, read and kept in memory for nothing.',
    computed: `The browser counts the functions that are called while each page is loaded, scrolled and swept over all widths, in each view. A function that is called in one of them, on one page, is used. ${unusedCost}`,
    ignore: 'For what runs only when a visitor acts: then it can be loaded at that time.',
  },
  step: () => 'take out what no page calls, or load it when it is needed',
  checkFile: (file, site) => unusedEvidence(file, 'script', site),
  describe: ({ share, unusedBytes, wireBytes, pages }, { bytes, count }) =>
    `${Math.round(100 * share)} % of it (${bytes(unusedBytes)} of ${bytes(wireBytes)} on the wire) are functions that nothing calls on ${count(pages, 'page')} while ${pages === 1 ? 'it loads and is' : 'they load and are'} scrolled`,
});
