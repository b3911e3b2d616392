import { addressAttribute, htmlCode } from '../../code.js';
import { sendingTime } from '../line.js';
import { fileFinding } from '../site-case.js';

/** A script that stops the document from being read until it has arrived and run. */
export const blockingScript = fileFinding({
  id: 'blocking-script',
  title: 'script that blocks rendering',
  doer: 'markup',
  fix: 'Add defer (it keeps the order of scripts) or async to the script element, or make it a module.',
  isWork: true,
  docs: {
    meaning:
      'A script in the document stops the browser from drawing until it has arrived and run.',
    why: 'Each keeps visitors waiting for the first thing that they see.',
    computed:
      'The browser reports that the request blocks rendering. The time is a round trip on the line mobile, and what the script takes on it.',
    ignore:
      'Where the page cannot be drawn rightly without it; a small one is better put into the document.',
  },
  step: () => 'add defer or async to its script element',
  checkFile: ({ resource }, { network }) => {
    const { url, type, status, renderBlocking, transferBytes } = resource;
    if (type !== 'script' || !renderBlocking || status < 200 || status >= 400) return undefined;
    const time = Math.round(network.latency + sendingTime(transferBytes, network));
    return { data: { url, transferBytes, time, network: network.name }, bytes: null, time };
  },
  code: ({ url }) => htmlCode(`<script ${addressAttribute('src', url)} defer></script>`),
  describe: ({ transferBytes, time: taken, network }, { bytes, time }) =>
    `blocks rendering: nothing is drawn before its ${bytes(transferBytes)} have arrived and run (${time(taken)} on the line ${network})`,
});
