import { lostTime } from './failed-request.js';
import { loadFinding } from './load-case.js';

/** Errors and failures: each costs its time, and brings nothing. */
export const errors = loadFinding({
  id: 'error',
  title: 'errors',
  doer: 'markup',
  fix: 'Correct the address, put the file there, or remove what asks for it.',
  isWork: false,
  docs: {
    meaning: 'A request is answered with an error, or not at all.',
    why: 'Something is missing, and the page may wait for it.',
    computed: 'By the status of the responses.',
    ignore: 'Where it is refused to programs only.',
  },
  check: (load) =>
    load.requests.flatMap((request) => {
      const { status, failure, redirectsTo } = request;
      const failed = failure !== null && failure !== 'canceled' ? failure : null;
      if (redirectsTo !== '' || (status < 400 && failed === null)) return [];
      return [lostTime(request, load, { status, failure: status >= 400 ? null : failed })];
    }),
  describe: ({ status, failure, spent }, { time }) =>
    `${failure === null ? `returned ${status}` : `failed: ${failure}`}${spent === null ? '' : `, after ${time(spent)}`}`,
});
