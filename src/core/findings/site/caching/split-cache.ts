import { fileFinding } from '../site-case.js';

/** Headers of requests that differ from visitor to visitor: a cache that goes by them keeps a copy for nearly each. */
const splitting = ['user-agent', 'cookie', 'referer', 'accept-language', '*'] as const;

/** A static file that caches may give only to visitors with the very same headers. */
export const splitCache = fileFinding({
  id: 'split-cache',
  title: 'static file that caches keep many times over',
  doer: 'server',
  fix: 'Name in vary only what the file really differs by, usually accept-encoding.',
  isWork: true,
  docs: {
    meaning:
      'The response to a static file names in vary what differs from visitor to visitor: user agent, cookies, referrer, language, or everything.',
    why: 'Shared caches keep a copy for each visitor, and hardly ever have the right one.',
    computed: 'By the vary header (RFC 9110, section 12.5.5).',
    ignore: 'Where the file really differs by it.',
  },
  step: () => 'name in its vary header only what it really differs by',
  checkFile: ({ resource: { url, type, status, headers, thirdParty } }) => {
    const isStatic = type === 'style' || type === 'script' || type === 'font';
    if (!isStatic || status !== 200 || thirdParty) return undefined;
    const named = (headers.vary ?? '')
      .toLowerCase()
      .split(',')
      .map((name) => name.trim());
    const by = splitting.filter((name) => named.includes(name));
    return by.length === 0 ? undefined : { data: { url, by }, bytes: null };
  },
  describe: ({ by }) =>
    `varies by ${by.map((name) => (name === '*' ? 'everything' : name)).join(', ')}: shared caches hardly ever have it`,
});
