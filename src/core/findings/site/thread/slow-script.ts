import { fileFinding, leastFelt } from '../site-case.js';
import { scriptRunsOf } from './script-runs.js';

/** A script that keeps the main thread busy while the page loads. */
export const slowScript = fileFinding({
  id: 'slow-script',
  title: 'script that keeps the page busy',
  doer: 'markup',
  fix: 'Do the work later or in parts (requestIdleCallback, a worker), or do without it.',
  isWork: true,
  docs: {
    meaning:
      'A script, a file or one in the document, runs for 50 ms and more in long frames while the page loads.',
    why: 'Meanwhile the page answers to nothing that a visitor does.',
    computed:
      'By Long Animation Frames (W3C): all its runs of 5 ms and more in frames of over 50 ms before the page is scrolled, the mean over all visits; with the function that ran the longest. It is the time of this machine during this survey; a phone takes several times as long. clock measures a page alone.',
    ignore: 'Where the work is what the visitor came for, and waits for a click.',
  },
  step: () => 'do its work later or in parts, or do without it',
  checkFile: (file, site) => {
    const runs = scriptRunsOf(file, site, 'time');
    if (!runs || runs.mean < leastFelt) return undefined;
    const data = { url: file.resource.url, time: runs.mean, function: runs.function };
    return { data, bytes: null, time: runs.mean };
  },
  describe: ({ time: taken, function: name }, { time }) =>
    `keeps the main thread busy for ${time(taken)} while a page loads${name === '' ? '' : `, mostly in ${name}`}`,
});
