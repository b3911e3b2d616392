import { fileFinding, hasCome } from '../site-case.js';

/** A file that pages ask for under another address. */
export const redirectedFile = fileFinding({
  id: 'redirected-file',
  title: 'redirect on the way to a file',
  doer: 'markup',
  fix: 'Name the address that the redirects lead to.',
  isWork: true,
  docs: {
    meaning: 'Pages ask for a file under an address that leads to another one.',
    why: 'Each redirect costs a round trip before the file begins to come.',
    computed:
      'By the requests of the page. The time is a round trip for each redirect on the line mobile.',
    ignore: 'Where a service names the newest version of its file this way.',
  },
  checkFile: ({ resource }, { network }) => {
    const { url, redirects, type } = resource;
    if (redirects.length === 0 || type === 'html' || !hasCome(resource)) return undefined;
    const time = redirects.length * network.latency;
    return { data: { url, redirects, time, network: network.name }, bytes: null, time };
  },
  step: ({ url }) => `name ${url} at once`,
  describe: ({ redirects, time: taken, network }, { time, count }) =>
    `is reached through ${count(redirects.length, 'redirect')} from ${redirects[0]!} (${time(taken)} on the line ${network})`,
});
