import type { ImageCheck } from './finding.js';
import { whereOf } from './where.js';

/** The largest contentful paint of a page, when the browser is told of it late, or not that it comes first. */
export const lateLargest: ImageCheck = ({ placements, responses }) => {
  const largest = placements.filter((placement) => placement.largest);
  const [first] = largest;
  if (!first) return undefined;
  const views = [...new Set(largest.map(({ view }) => view))].join(', ');
  const main = `the largest picture of the first screen (${views})`;
  const answer = responses.find(({ page, view }) => page === first.page && view === first.view);
  const preloaded = answer?.initiator === 'preload';
  const late =
    answer?.initiator === 'script'
      ? 'a script'
      : !preloaded && first.markup === null && first.kind !== 'poster'
        ? 'a style sheet'
        : undefined;
  if (late)
    return {
      id: 'late-largest',
      message: `${main}, but found late, by ${late}: say <link rel="preload" as="image" fetchpriority="high"> (${whereOf(largest)})`,
    };
  if (first.kind !== 'img' || first.markup?.fetchPriority === 'high') return undefined;
  return {
    id: 'late-largest',
    message: `${main}, but without priority: say fetchpriority="high" (${whereOf(largest)})`,
  };
};
