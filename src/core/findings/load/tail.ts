import { max } from 'simple-statistics';
import { hostOf } from '../../address/address.js';
import { timeText, bytesText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** What is still asked for when the page is usable: it makes "fully loaded" late, and no visitor waits for it. */
export const tail: LoadCheck = ({ requests, usable }) => {
  if (usable === null) return undefined;
  const late = requests.filter(({ start }) => start >= usable);
  if (late.length === 0) return undefined;
  const bytes = late.reduce((sum, { transferBytes }) => sum + transferBytes, 0);
  const last = max(late.map(({ start, end }) => end ?? start));
  const hosts = [...new Set(late.map(({ url }) => hostOf(url)))].filter((host) => host !== '');
  const named =
    hosts.slice(0, 3).join(', ') + (hosts.length > 3 ? ` and ${hosts.length - 3} more` : '');
  return {
    id: 'tail',
    message: `${late.length} ${late.length === 1 ? 'request' : 'requests'} with ${bytesText(bytes)} from ${named}, the last of them at ${timeText(last)}`,
    url: null,
    cost: null,
    late: true,
  };
};
