import { lostTime } from './failed-request.js';
import { loadFinding } from './load-case.js';

/** Redirects: each costs a round trip. */
export const redirects = loadFinding({
  id: 'redirect',
  title: 'redirects',
  doer: 'markup',
  fix: 'Link to the address that it leads to.',
  isWork: false,
  docs: {
    meaning: 'A request leads to another address.',
    why: 'Each redirect costs a round trip.',
    computed: 'By the responses of the load.',
    ignore: 'Where old links to it are everywhere.',
  },
  check: (load) =>
    load.requests.flatMap((request) => {
      const { status, redirectsTo } = request;
      const is = redirectsTo !== '' || (status >= 300 && status !== 304 && status < 400);
      return is ? [lostTime(request, load, { status, target: redirectsTo })] : [];
    }),
  describe: ({ status, target, spent }, { time }) =>
    `redirects (${status})${target === '' ? '' : ` to ${target}`}${spent === null ? '' : `, which takes ${time(spent)}`}`,
});
