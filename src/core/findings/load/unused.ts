import type { RequestType } from '../../load/request.js';
import { isEarly, loadFinding } from './load-case.js';

/** Fewer bytes than this are not worth a word. */
const leastBytes = 10_000;

const reasons: Readonly<Partial<Record<RequestType, string>>> = {
  image: 'no element shows it',
  style: 'no element matches any of its rules',
  script: 'it is never run',
  font: 'no text uses it',
};

/** Files fetched in this view and not used. */
export const unused = loadFinding({
  id: 'unused',
  title: 'fetched, but not used',
  doer: 'markup',
  fix: 'Remove what fetches it, or load it only where it is used.',
  isWork: false,
  docs: {
    meaning: 'A file is fetched, and the page uses nothing of it.',
    why: 'Its bytes are for nothing.',
    computed: 'By the elements, style rules, fonts and scripts of the page after it was loaded.',
    ignore: 'Where it is for what the visitor does next.',
  },
  check: (load) =>
    load.requests.flatMap((request) => {
      const { type, used, transferBytes: bytes, url } = request;
      if (used !== false || bytes < leastBytes) return [];
      return [{ data: { type, bytes }, url, cost: null, late: !isEarly(request, load) }];
    }),
  describe: ({ type, bytes }, format) =>
    `its ${format.bytes(bytes)} are not used: ${reasons[type] ?? 'nothing comes of them'}`,
});
