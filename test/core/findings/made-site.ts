import { siteFindingsOf } from '../../../src/core/findings/site/index.js';
import type { SiteFinding } from '../../../src/core/findings/site/index.js';
import type { SurveyedSite } from '../../../src/core/findings/site/open-site.js';
import { Mutes } from '../../../src/core/policy/mutes.js';
import type { MuteRule } from '../../../src/core/policy/mutes.js';
import type { DocumentParts, LoadFacts } from '../../../src/core/survey/load-facts.js';
import type { Resource, TextFacts } from '../../../src/core/survey/resource.js';

export const plainFile: Resource = {
  url: 'https://a.test/site.css',
  type: 'style',
  status: 200,
  mediaType: 'text/css',
  protocol: 'h2',
  headers: { 'cache-control': 'max-age=31536000', etag: '"1"' },
  transferBytes: 10_100,
  wireBytes: 10_000,
  bodyBytes: 30_000,
  contentHash: null,
  renderBlocking: false,
  thirdParty: false,
  ...{ initiator: 'parser', initiatedBy: null, redirects: [], cookieBytes: 0, times: 1 },
};

export const noParts: DocumentParts = {
  ...{ scripts: [], sheets: [], hints: [], fontFaces: [], videos: [], writes: 0 },
};

export const plainLoad: LoadFacts = {
  ...{ wait: 10, redirects: [], elements: 100, parts: noParts, shifts: [], scriptTimes: [] },
  ...{ styleUse: [], scriptUse: [], fontUse: [] },
};

export interface MadePage {
  readonly url?: string;
  readonly group?: string;
  readonly files?: readonly Partial<Resource>[];
  readonly load?: Partial<LoadFacts>;
  readonly parts?: Partial<DocumentParts>;
}

/** The findings on pages that are visited once each, all as often. */
export function findingsOf(
  pages: readonly MadePage[],
  texts: readonly Partial<TextFacts>[] = [],
  mute: readonly MuteRule[] = [],
  earlier?: SurveyedSite['earlier'],
): SiteFinding[] {
  const urls = pages.map(({ url }, at) => url ?? `https://a.test/${at}/`);
  const list: Resource[] = [];
  const ofVisit = pages.map(({ files = [] }) =>
    files.map((file) => list.push({ ...plainFile, ...file }) - 1),
  );
  return siteFindingsOf({
    resources: {
      list,
      ofVisit,
      texts: new Map(
        texts.map((text) => [
          text.contentHash ?? 'text',
          {
            ...{ contentHash: 'text', bytes: 30_000, gzip: 10_000, brotli: 10_000 },
            ...{ minified: null, embedded: { count: 0, bytes: 0 }, ...text },
          },
        ]),
      ),
      loads: pages.map(({ load, parts }) => ({
        ...plainLoad,
        ...load,
        parts: { ...noParts, ...parts },
      })),
    },
    weighed: {
      visits: urls.map((page) => ({ page, view: 'phone', measured: true })),
      weights: urls.map(() => 1 / urls.length),
    },
    groupOf: (page) => pages[urls.indexOf(page)]?.group ?? null,
    mutes: new Mutes(mute),
    earlier,
  });
}
