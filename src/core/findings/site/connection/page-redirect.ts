import { pageFinding } from '../site-case.js';

/** A page that is reached through other addresses. */
export const pageRedirect = pageFinding({
  id: 'page-redirect',
  title: 'redirect on the way to a page',
  doer: 'markup',
  fix: 'Link to the address that the redirects lead to.',
  isWork: true,
  docs: {
    meaning: 'The address under which a page was found leads to it through redirects.',
    why: 'Each costs a round trip before the server begins with the page; one to another host a new connection, too.',
    computed:
      'By the requests of the document. The time is a round trip for each redirect on the line mobile.',
    ignore:
      'Where visitors type the address, or old links to it are everywhere: then one redirect is right.',
  },
  checkPage: ({ url, loads, files }, { network }) => {
    const redirects = loads.map((load) => load.redirects).find(({ length }) => length > 0);
    if (!redirects) return [];
    const to = files.find(({ resource }) => resource.type === 'html')?.resource.url ?? url;
    const time = redirects.length * network.latency;
    const data = { redirects, to, time, network: network.name };
    return [{ data, bytes: null, time }];
  },
  step: ({ to }) => `link to ${to} at once`,
  describe: ({ redirects, to, time: taken, network }, { time, count }) =>
    `is reached through ${count(redirects.length, 'redirect')} from ${redirects[0]!} to ${to} (${time(taken)} on the line ${network})`,
});
