import type { PageRequest } from '../../load/request.js';
import { timeText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** A picture that is in the markup is asked for as soon as the markup is there, give or take this. */
const grace = 100;

/** The picture of the largest contentful paint, asked for long after the page's markup was there. */
export const lateDiscovery: LoadCheck = ({ requests, document, largest }) => {
  if (largest?.url == null || document?.end == null) return undefined;
  const picture = requests.find(({ url }) => url === largest.url);
  if (!picture) return undefined;
  const found = picture.start - document.end;
  if (found < grace) return undefined;
  const { initiator } = picture;
  const isKnown = initiator !== '' && initiator !== 'other';
  const by = isKnown ? `, by ${initiator}${placeOf(picture)}` : '';
  return {
    id: 'late-discovery',
    message: `the largest picture of the first screen is asked for ${timeText(found)} after the HTML was there${by}`,
    url: picture.url,
    cost: found,
    late: false,
  };
};

/** Where it was asked for, as far as that is not the page itself. */
function placeOf({ initiatedBy }: Pick<PageRequest, 'initiatedBy'>): string {
  if (initiatedBy === null) return '';
  const { url, line } = initiatedBy;
  return line === null ? ` (${url})` : ` (${url}, line ${line})`;
}
