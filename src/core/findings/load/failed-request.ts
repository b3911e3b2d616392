import type { PageRequest } from '../../load/request.js';
import { isEarly } from './load-case.js';
import type { LoadCase, LoadEvidence } from './load-case.js';

/** What a request that brought nothing has cost: the time until it was answered. */
export function lostTime<Data extends object>(
  request: PageRequest,
  load: LoadCase,
  data: Data,
): LoadEvidence<Data & { readonly spent: number | null }> {
  const { url, start, end } = request;
  const spent = end === null ? null : end - start;
  return { data: { ...data, spent }, url, cost: spent, late: !isEarly(request, load) };
}
