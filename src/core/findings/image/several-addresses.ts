import { isInDocument } from '../../address/address.js';
import type { ImageCheck } from './finding.js';

export const severalAddresses: ImageCheck = ({ file, responses }) => {
  const fetched = responses.filter(({ url }) => !isInDocument(url));
  const count = new Set(fetched.map(({ url }) => url)).size;
  if (count < 2 || file.problem !== null) return undefined;
  return {
    id: 'several-addresses',
    message: `the same content is sent under ${count} addresses: link to one of them`,
  };
};
