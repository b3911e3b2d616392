import { chosenAttempt } from '../../survey/encoded.js';
import { imageFinding } from './image-case.js';

export const belowSimilarity = imageFinding({
  id: 'below-similarity',
  title: 'smaller file less similar than the policy asks',
  doer: null,
  fix: 'Look at it in the review; allow a higher quality or another format, or exempt it by a rule.',
  isWork: false,
  docs: {
    meaning:
      'No quality that the policy allows made a smaller file that is as similar as the policy asks.',
    why: 'The smaller file that refit makes may look worse than the original.',
    computed:
      'The best file of the quality search is compared with the ideal reduction (see model.md).',
    ignore: 'Where the review shows no difference.',
  },
  check: ({ encoded, policy }) => {
    const chosen = encoded && chosenAttempt(encoded);
    if (!chosen || chosen.quality === null || chosen.similarity >= policy.similarity)
      return undefined;
    const { format, quality, similarity } = chosen;
    return { format, quality, similarity, asked: policy.similarity };
  },
  describe: ({ format, quality, similarity, asked }) =>
    `as ${format} of quality ${quality}, the most similar that was found, it is ${similarity.toFixed(4)} similar to the ideal; the policy asks for ${asked}`,
});
