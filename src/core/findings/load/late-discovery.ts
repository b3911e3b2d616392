import { loadFinding } from './load-case.js';

/** A picture that is in the markup is requested as soon as the markup is there, give or take this. */
const grace = 100;

/** The picture of the largest contentful paint, requested long after the page's HTML had arrived. */
export const lateDiscovery = loadFinding({
  id: 'late-discovery',
  title: 'largest image found late',
  doer: 'markup',
  fix: 'Put it into the HTML as an img, or preload it.',
  isWork: false,
  docs: {
    meaning: 'The largest image is found late.',
    why: 'Visitors wait for exactly this image.',
    computed: 'By the time of its request after that of the document.',
    ignore: 'Where a script must choose it.',
  },
  check: ({ requests, document, largest }) => {
    if (largest?.url == null || document?.end == null) return [];
    const picture = requests.find(({ url }) => url === largest.url);
    if (!picture) return [];
    const delay = picture.start - document.end;
    if (delay < grace) return [];
    const { initiator, initiatedBy } = picture;
    const known = initiator !== '' && initiator !== 'other';
    const data = { delay, initiator: known ? initiator : null, initiatedBy };
    return [{ data, url: picture.url, cost: delay, late: false }];
  },
  describe: ({ delay, initiator, initiatedBy }, { time }) => {
    const line = initiatedBy?.line == null ? '' : `, line ${initiatedBy.line}`;
    const place = initiatedBy === null ? '' : ` (${initiatedBy.url}${line})`;
    const by = initiator === null ? '' : `, by ${initiator}${place}`;
    return `is the largest image of the first screen, but requested ${time(delay)} after the HTML had arrived${by}`;
  },
});
