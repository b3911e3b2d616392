import { viewsOf, whereOf, whereWords } from '../where.js';
import { imageFinding } from './image-case.js';

/** A largest contentful paint that the browser finds late, or without a high priority. */
export const lateLargest = imageFinding({
  id: 'late-largest',
  title: 'largest image found late or without priority',
  doer: 'markup',
  fix: 'Put it into the markup as an img with fetchpriority="high", or preload it.',
  isWork: true,
  isInSnippets: true,
  docs: {
    meaning:
      'The largest image of the first screen is found only through a style sheet or a script, or has no priority.',
    why: 'Visitors wait for exactly this image.',
    computed:
      'By the largest contentful paint of a visit (W3C), the initiator of the request and fetchpriority.',
    ignore: 'Where the image is another for each visitor, and must be chosen by a script.',
  },
  check: ({ placements, answerTo }) => {
    const largest = placements.filter((placement) => placement.largest);
    const [first] = largest;
    if (!first) return undefined;
    const found = { views: viewsOf(largest), where: whereOf(largest) };
    const answer = answerTo(first);
    if (answer?.initiator === 'script') return { ...found, foundBy: 'script' as const };
    const preloaded = answer?.initiator === 'preload';
    if (!preloaded && first.markup === null && first.kind !== 'poster')
      return { ...found, foundBy: 'style sheet' as const };
    if (first.kind !== 'img' || first.markup?.fetchPriority === 'high') return undefined;
    return { ...found, foundBy: null };
  },
  step: ({ foundBy }) =>
    foundBy === null
      ? 'add fetchpriority="high"'
      : 'add <link rel="preload" as="image" fetchpriority="high">',
  describe: ({ views, where, foundBy }) => {
    const main = `is the largest image of the first screen (${views.join(', ')}), but`;
    return foundBy === null
      ? `${main} has no priority: add fetchpriority="high" (${whereWords(where)})`
      : `${main} is found late, through a ${foundBy}: add <link rel="preload" as="image" fetchpriority="high"> (${whereWords(where)})`;
  },
});
