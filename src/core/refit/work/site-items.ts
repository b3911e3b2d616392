import type { Finding } from '../../findings/finding.js';
import { findingKind } from '../../findings/index.js';
import type { SiteFinding } from '../../findings/site/index.js';
import type { DraftItem } from './work-item.js';

/**
 * What is to be done about files that are no images: one item for a file, or for the documents of a page group.
 *
 * @param groups the page group of each page
 */
export function siteItems(
  site: readonly SiteFinding[],
  groups: ReadonlyMap<string, string | null>,
  wordsOf: (finding: Finding) => string,
): DraftItem[] {
  return site.flatMap((finding): DraftItem[] => {
    const { id, data, url, group, part, pages, count, perVisit, thirdParty } = finding;
    const kind = findingKind(id);
    if (!kind?.doer || !kind.isWork) return [];
    const places = new Set(pages.map((page) => groups.get(page) ?? page));
    const others = [
      ...(group !== null && pages.length > 1
        ? [moreOf(pages.length - 1, 'page', ' of its group')]
        : []),
      ...(group === null && count > 1 ? [moreOf(count - 1, 'file', '')] : []),
    ].join('');
    return [
      {
        key: [id, group ?? url, part].join('\n'),
        who: thirdParty ? 'third party' : kind.doer,
        what: (kind.step?.(data) ?? kind.fix) + others,
        url,
        images: 0,
        where: places.size === 1 ? [...places][0]! : null,
        pages,
        selector: '',
        from: wordsOf(finding),
        to: '',
        code: kind.code?.(data),
        savedPerVisit: perVisit ?? 0,
      },
    ];
  });
}

function moreOf(number: number, one: string, which: string): string {
  return ` (and ${number} more ${number === 1 ? one : `${one}s`}${which})`;
}
