import { findingKind } from '../../core/findings/index.js';
import type { SiteFinding } from '../../core/findings/site/index.js';
import { findingWords } from '../words/findings.js';
import { plainText, shorten, withoutOrigin } from '../words/plain-text.js';
import { count, formatBytes, formatTime } from '../words/units.js';
import { paletteFor, wrapped } from './style.js';
import type { Screen } from './style.js';

/**
 * A finding on a file, or on the documents of a page group: where, what mending it saves, and in words.
 *
 * @param ofPage whether it is told of one page, and not of the site
 */
export function siteFindingLines(
  finding: SiteFinding,
  origin: string,
  screen: Screen,
  ofPage: boolean,
): string[] {
  const { bold, dim } = paletteFor(screen);
  const { url, group, pages, count: of, perVisit, timePerVisit, thirdParty } = finding;
  const isGroup = group !== null && pages.length > 1;
  const more = of > 1 && !isGroup ? ` and ${count(of - 1, 'more file')}` : '';
  const name = isGroup
    ? `pages of ${plainText(group)}`
    : `${shorten(withoutOrigin(url, origin), screen.width - 50)}${more}`;
  const visit = ofPage ? 'a visit to this page' : 'an average visit';
  const saved = [
    ...(perVisit === null ? [] : [bold(formatBytes(perVisit))]),
    ...(timePerVisit ? [bold(formatTime(timePerVisit))] : []),
  ].join(' and ');
  const facts = [
    ...(ofPage ? [] : [count(pages.length, 'page')]),
    ...(saved ? [`saves ${visit} ${saved}`] : []),
    ...(thirdParty ? ['third party'] : []),
  ];
  const worst = isGroup ? `${withoutOrigin(url, origin)} ` : '';
  return [
    `  ${wrapped(facts.length > 0 ? `${name} (${facts.join(', ')})` : name, screen, 4)}`,
    dim(`    ${wrapped(`${plainText(worst)}${plainText(findingWords(finding))}`, screen, 4)}`),
    ...codeOf(finding).map((line) => `      ${plainText(line, 1_000)}`),
  ];
}

/** What to write, line by line. */
function codeOf({ id, data }: SiteFinding): string[] {
  return findingKind(id)?.code?.(data).text.split('\n') ?? [];
}
