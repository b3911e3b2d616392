import type { FindingData, FindingKind } from './finding.js';
import { imageFindings } from './image/index.js';
import type { ImageFindingId } from './image/index.js';
import { loadFindings } from './load/index.js';
import type { LoadFindingId } from './load/index.js';
import { pageFindings } from './page/index.js';
import type { PageFindingId } from './page/index.js';
import { siteFindings } from './site/index.js';
import type { SiteFindingId } from './site/index.js';

export type FindingId = ImageFindingId | PageFindingId | SiteFindingId | LoadFindingId;

/** Every kind of finding, by what it is about. */
export const findingKinds = {
  image: imageFindings,
  page: pageFindings,
  site: siteFindings,
  load: loadFindings,
} as const satisfies Readonly<Record<string, readonly FindingKind<FindingId, FindingData>[]>>;

const byId: ReadonlyMap<string, FindingKind<FindingId, FindingData>> = new Map(
  Object.values(findingKinds)
    .flat<readonly (readonly FindingKind<FindingId, FindingData>[])[]>()
    .map((kind) => [kind.id, kind]),
);

/** The ids of all kinds. */
export const findingIds: ReadonlySet<string> = new Set(byId.keys());

/** The description of a kind of finding; `undefined` for one unknown to this version. */
export function findingKind(id: string): FindingKind<FindingId, FindingData> | undefined {
  return byId.get(id);
}

/** The kind of finding that a person means, by its id or its title. */
export function findingNamed(text: string): FindingKind<FindingId, FindingData> | undefined {
  return byId.get(text) ?? [...byId.values()].find(({ title }) => title === text);
}
