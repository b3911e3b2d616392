import type { Policy } from '../../policy/policy.js';
import type { RankedImage } from '../../rank/ranked-image.js';
import type { MarkupForm } from './refitted-element.js';

/** Whether the server chooses the format of an image by what the browser accepts (`Vary: Accept`). */
export function isNegotiated(
  { addressResponses }: Pick<RankedImage, 'addressResponses'>,
  { markup }: Pick<Policy, 'markup'>,
): boolean {
  if (markup === 'picture') return false;
  return addressResponses.some(({ headers }) =>
    (headers.vary ?? '').split(',').some((name) => name.trim().toLowerCase() === 'accept'),
  );
}

/** How the markup of an image offers its formats. */
export function formFor(
  image: Pick<RankedImage, 'addressResponses'>,
  policy: Pick<Policy, 'markup'>,
): MarkupForm {
  if (policy.markup !== 'auto') return policy.markup;
  return isNegotiated(image, policy) ? 'img' : 'picture';
}
