import { siteFinding } from './site-case.js';

/** A script that stops the document from being read until it has arrived and run. */
export const blockingScript = siteFinding({
  id: 'blocking-script',
  title: 'script that blocks rendering',
  doer: 'markup',
  fix: 'Add defer (it keeps the order of scripts) or async to the script element, or make it a module.',
  isWork: true,
  step: () => 'add defer or async to its script element',
  check: ({ resource: { url, type, status, renderBlocking, transferBytes } }) =>
    type === 'script' && renderBlocking && status >= 200 && status < 400
      ? { data: { url, transferBytes }, bytes: null }
      : undefined,
  describe: ({ transferBytes }, { bytes }) =>
    `blocks rendering: nothing is drawn before its ${bytes(transferBytes)} have arrived and run`,
});
