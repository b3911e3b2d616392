import { addressAttribute, htmlCode } from '../../code.js';
import { pageFinding } from '../site-case.js';

/** Style sheets that stand after a script which the browser runs at once. */
export const lateStyle = pageFinding({
  id: 'late-style',
  title: 'style sheets after scripts',
  doer: 'markup',
  fix: 'Link to style sheets before scripts, or defer the scripts.',
  isWork: true,
  docs: {
    meaning: 'A link to a style sheet stands after a script that runs at once.',
    why: 'The browser stops reading the document at the script: until it has come, a browser that does not look ahead does not know of the style sheet, and both wait for each other.',
    computed: 'By the order of script and link elements in the document.',
    ignore: 'Where the script decides which style sheet is loaded.',
  },
  checkPage: ({ loads }) => {
    const sheets = [
      ...new Set(
        loads.flatMap(({ parts }) =>
          parts.sheets.filter(({ afterScript }) => afterScript).map(({ url }) => url),
        ),
      ),
    ];
    if (sheets.length === 0) return [];
    return [{ data: { count: sheets.length, sheets: sheets.slice(0, 10) }, bytes: null }];
  },
  step: ({ sheets }) => `link to ${sheets[0]!} before the scripts`,
  code: ({ sheets }) =>
    htmlCode(
      ...sheets.map((url) => `<link rel="stylesheet" ${addressAttribute('href', url)}>`),
      '<!-- the scripts -->',
    ),
  describe: ({ count: after, sheets }, { count }) =>
    `has ${count(after, 'style sheet')} after a script that runs at once: ${sheets.join(', ')}`,
});
