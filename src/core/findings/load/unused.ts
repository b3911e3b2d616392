import type { PageRequest, RequestType } from '../../load/request.js';
import { isEarly, bytesText } from './load-case.js';
import type { LoadCheck } from './load-case.js';

/** Fewer bytes than this are not worth a word. */
const leastBytes = 10_000;

const reasons: Readonly<Partial<Record<RequestType, string>>> = {
  image: 'no element shows it',
  style: 'no element matches a rule of it',
  script: 'it is never run',
  font: 'nothing is drawn with it',
};

/** What was fetched in this view and came to nothing. */
export const unused: LoadCheck = (load) =>
  load.requests.flatMap((request: PageRequest) => {
    const { type, used, transferBytes, url } = request;
    if (used !== false || transferBytes < leastBytes) return [];
    return {
      id: 'unused',
      message: `${bytesText(transferBytes)} for nothing: ${reasons[type] ?? 'nothing comes of it'}`,
      url,
      cost: null,
      late: !isEarly(request, load),
    };
  });
