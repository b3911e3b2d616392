import { fileFinding } from '../site-case.js';
import { scriptRunsOf } from './script-runs.js';

/** Milliseconds of layout that a script may cause. */
const allowed = 30;

/** A script that has the page laid out again and again. */
export const forcedLayout = fileFinding({
  id: 'forced-layout',
  title: 'script that forces layout',
  doer: 'markup',
  fix: 'Read all sizes first, and write styles after (or in requestAnimationFrame).',
  isWork: true,
  docs: {
    meaning:
      'A script changes the page and asks for a size right after, so that the browser has to compute styles and layout at once.',
    why: 'Done in a loop, it takes longer than anything else that the script does.',
    computed:
      'By Long Animation Frames (W3C): the time of styles and layout within its runs while the page loads, 30 ms and more in the mean over all visits.',
    ignore: 'Where it happens once, and the page is small.',
  },
  step: () => 'read sizes first and write styles after',
  checkFile: (file, site) => {
    const runs = scriptRunsOf(file, site, 'forced');
    if (!runs || runs.mean < allowed) return undefined;
    const data = { url: file.resource.url, time: runs.mean, function: runs.function };
    return { data, bytes: null, time: runs.mean };
  },
  describe: ({ time: taken, function: name }, { time }) =>
    `has the page laid out for ${time(taken)} while it runs${name === '' ? '' : `, mostly in ${name}`}`,
});
