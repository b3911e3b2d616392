import { array } from 'yup';
import { requestTypes } from '../core/load/request.js';
import { requestSortKeys } from '../core/load/request-view.js';
import type { RequestChoice } from '../core/load/request-view.js';
import { oneOf, shortText, textList } from './checks.js';
import { shared } from './common-options.js';
import { writeResult } from './write-result.js';
import { numbered } from './numbered.js';

const text = { type: 'string', requiresArg: true } as const;

/** The options by which requests are chosen and drawn. */
export function requestOptions(most: number) {
  const top = shared.top(most, 'requests');
  return {
    options: {
      top: top.option,
      sort: { describe: `Draw the requests by ${requestSortKeys.join(', ')} [start]`, ...text },
      only: {
        describe: `Draw only requests of a type: ${requestTypes.join(', ')}`,
        ...text,
        array: true,
      },
      host: {
        describe: 'Draw only requests to this host and its subdomains',
        ...text,
        array: true,
      },
      svg: { describe: 'Draw the waterfall into this file as SVG', ...text },
      png: { describe: 'Draw the waterfall into this file as PNG', ...text },
    },
    checks: {
      top: top.check,
      sort: oneOf(requestSortKeys).default('start'),
      only: array().of(oneOf(requestTypes).defined()).default([]),
      host: textList('a host').default([]),
      svg: shortText(),
      png: shortText(),
    },
  };
}

/** What the options come to. */
export interface RequestSettings {
  readonly sort: RequestChoice['sort'];
  readonly only: NonNullable<RequestChoice['only']>;
  readonly host: readonly string[];
  readonly top: number;
  readonly svg?: string | undefined;
  readonly png?: string | undefined;
}

export function choiceOf({ sort, only, host, top }: RequestSettings): RequestChoice {
  return { sort, only, hosts: host, top };
}

/** Writes pictures into the files that were named; those of several pages are numbered. */
export async function writePictures(
  pictures: readonly (() => string)[],
  { svg, png }: Pick<RequestSettings, 'svg' | 'png'>,
): Promise<void> {
  if (svg === undefined && png === undefined) return;
  for (const [index, draw] of pictures.entries()) {
    const picture = draw();
    const path = (file: string) => (pictures.length === 1 ? file : numbered(file, index + 1));
    if (svg !== undefined) await writeResult(path(svg), picture, '--svg');
    if (png === undefined) continue;
    const { rasterise } = await import('../images/rasterise.js');
    await writeResult(path(png), await rasterise(picture), '--png');
  }
}
