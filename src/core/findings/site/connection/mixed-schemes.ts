import { fileFinding } from '../site-case.js';

/** A file without TLS on a page with it. */
export const mixedSchemes = fileFinding({
  id: 'mixed-schemes',
  title: 'file over http on a page over https',
  doer: 'markup',
  fix: 'Write https in its address.',
  isWork: true,
  docs: {
    meaning: 'A page that comes over https asks for a file over http.',
    why: 'Browsers refuse scripts and styles of this kind, warn of others, and open connections of their own for them.',
    computed: 'By the schemes of both addresses.',
    ignore: 'Never: where the server has no TLS, the file is better moved.',
  },
  step: () => 'write https in its address',
  checkFile: ({ resource: { url, status }, pages }) => {
    const secure = pages.filter((page) => page.startsWith('https:'));
    if (!url.startsWith('http:') || secure.length === 0) return undefined;
    return { data: { url, status, pages: secure.length }, bytes: null };
  },
  describe: ({ status, pages }, { count }) =>
    `is asked for over http by ${count(pages, 'page')} over https${status === 0 ? ', and refused by the browser' : ''}`,
});
