import type { PageRequest } from '../../load/request.js';
import { isEarly } from './load-case.js';
import type { LoadCase, LoadEvidence } from './load-case.js';

/** The cost of a request without a body: the time until its response. */
export function lostTime<Data extends object>(
  request: PageRequest,
  load: LoadCase,
  data: Data,
): LoadEvidence<Data & { readonly spent: number | null }> {
  const { url, start, end } = request;
  const spent = end === null ? null : end - start;
  return { data: { ...data, spent }, url, cost: spent, late: !isEarly(request, load) };
}
