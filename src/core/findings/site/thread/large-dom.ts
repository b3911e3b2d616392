import { max } from 'simple-statistics';
import { pageFinding } from '../site-case.js';

/** Elements that phones still lay out without a delay that is felt. */
const allowed = 1_500;

/** A page of many elements. */
export const largeDom = pageFinding({
  id: 'large-dom',
  title: 'page of very many elements',
  doer: 'markup',
  fix: 'Show less at a time: split long lists and tables, and build what is hidden when it is opened.',
  isWork: false,
  docs: {
    meaning: 'A page has more than 1,500 elements.',
    why: 'Each change of styles has to be matched against all of them, and each layout placed.',
    computed: 'The elements of the document after it was scrolled, the most of any view.',
    ignore: 'Where the page is a long text that people read as a whole.',
  },
  checkPage: ({ loads }) => {
    const elements = loads.length === 0 ? 0 : max(loads.map((load) => load.elements));
    return elements > allowed ? [{ data: { elements, allowed }, bytes: null }] : [];
  },
  describe: ({ elements, allowed: most }, { count }) =>
    `has ${count(elements, 'element')}; over ${most.toLocaleString('en')} make a phone slow`,
});
