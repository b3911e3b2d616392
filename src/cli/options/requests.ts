import { requestTypes } from '../../core/load/request.js';
import { requestSortKeys } from '../../core/load/request-view.js';
import type { RequestChoice } from '../../core/load/request-view.js';
import { oneOf, someOf, textList } from './checks.js';
import { option } from './option.js';
import type { SettingsOf } from './option.js';
import { shared } from './shared.js';

/** The options that choose the requests to draw. */
export const requestOptions = (most: number) => ({
  top: shared.top(most, 'requests'),
  sort: option('Sort the requests by this', oneOf(requestSortKeys).default('start')),
  only: option('Draw only requests of this type', someOf(requestTypes)),
  host: option(
    'Draw only requests to this host and its subdomains',
    textList('a host').default([]),
  ),
});

export type RequestSettings = SettingsOf<ReturnType<typeof requestOptions>>;

export function choiceOf({ sort, only, host, top }: RequestSettings): RequestChoice {
  return { sort, only, hosts: host, top };
}
