import { headerValue, withHeader } from '../../../core/trial/recording.js';
import { changeEach, hasBody } from './fix.js';
import type { Fix } from './fix.js';

const year = 'max-age=31536000, immutable';

export const lifetimes: Fix = {
  name: 'lifetimes',
  title: 'caches keep images, styles, scripts and fonts for a year',
  unit: 'file',
  isOfBytes: false,
  isUsual: () => false,
  apply: async (recording) => {
    const outcome = await changeEach(
      recording,
      (response) =>
        hasBody(response) &&
        response.request.type !== 'html' &&
        response.request.type !== 'other' &&
        headerValue(response.request.responseHeaders, 'cache-control') !== year,
      (response) => Promise.resolve(withHeader(response, 'cache-control', year)),
    );
    return { ...outcome, notes: ['counts at a second visit: see --warm'] };
  },
};
