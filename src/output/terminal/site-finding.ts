import type { SiteFinding } from '../../core/findings/site/index.js';
import { findingWords } from '../words/findings.js';
import { plainText, shorten, withoutOrigin } from '../words/plain-text.js';
import { count, formatBytes } from '../words/units.js';
import { paletteFor } from './style.js';
import type { Screen } from './style.js';

/** A finding on a file, or on the documents of a page group: where, what it costs an average visit, and in words. */
export function siteFindingLines(finding: SiteFinding, origin: string, screen: Screen): string[] {
  const { bold, dim } = paletteFor(screen);
  const { url, group, pages, perVisit, thirdParty } = finding;
  const documents = group !== null && pages.length > 1;
  const name = documents
    ? `documents of ${plainText(group)}`
    : shorten(withoutOrigin(url, origin), screen.width - 50);
  const cost = perVisit === null ? '' : `, ${bold(formatBytes(perVisit))} per visit`;
  const from = thirdParty ? ', third party' : '';
  const worst = documents ? `${withoutOrigin(url, origin)} ` : '';
  return [
    `  ${name} (${count(pages.length, 'page')}${cost}${from})`,
    dim(`    ${plainText(worst)}${plainText(findingWords(finding))}`),
  ];
}
