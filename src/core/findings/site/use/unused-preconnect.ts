import { pageFinding } from '../site-case.js';

/** A connection that a page opens ahead and sends nothing on. */
export const unusedPreconnect = pageFinding({
  id: 'unused-preconnect',
  title: 'preconnect that nothing uses',
  doer: 'markup',
  fix: 'Remove the link with rel="preconnect".',
  isWork: true,
  docs: {
    meaning: 'The document has the browser connect to a host from which the page is sent nothing.',
    why: 'A connection with TLS costs both sides work, and some kilobytes on the line, when the page needs them most.',
    computed: 'By the hosts of all requests of the page, over all views.',
    ignore: 'Where the host is for what the visitor does next.',
  },
  checkPage: ({ loads, files }) => {
    const hints = loads.flatMap(({ parts }) => parts.hints);
    const wanted = hints.filter(({ rel }) => rel === 'preconnect');
    const origins = new Set(wanted.map(({ url }) => new URL(url).origin));
    const asked = new Set(
      files.flatMap(({ resource: { url, redirects } }) =>
        [url, ...redirects].map((address) => new URL(address).origin),
      ),
    );
    return [...origins]
      .filter((origin) => !asked.has(origin))
      .map((origin) => ({ data: { origin }, bytes: null, together: origin }));
  },
  step: ({ origin }) => `remove the preconnect to ${origin}`,
  describe: ({ origin }) => `connects to ${origin} ahead of time and asks it for nothing`,
});
