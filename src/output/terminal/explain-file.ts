import type { FileView } from '../views/explain.js';
import { plainText, shorten, withoutOrigin } from '../words/plain-text.js';
import { originOf } from '../words/rank.js';
import { count, formatBytes, formatShare } from '../words/units.js';
import { siteFindingLines } from './site-finding.js';
import { paletteFor, wrapped } from './style.js';
import type { Screen } from './style.js';

/** The story of a file that is no image: how it was sent, to which pages, and what is to be said of it. */
export function drawFile({ file, site, result, top }: FileView, screen: Screen): string {
  const { bold, dim } = paletteFor(screen);
  const { resource, text, pages, perVisit } = file;
  const { url, status, mediaType, protocol, headers, transferBytes, bodyBytes } = resource;
  const origin = originOf(result.survey);
  const encoding = headers['content-encoding'];
  const left = pages.length - top;
  const minified = text?.minified;
  return [
    bold(shorten(url, screen.width)),
    wrapped(
      `${status === 0 ? 'no answer' : `status ${status}`}, ${plainText(mediaType || 'of unknown type')}${protocol ? `, ${plainText(protocol)}` : ''}${resource.renderBlocking ? ', blocks rendering' : ''}${resource.thirdParty ? ', third party' : ''}`,
      screen,
    ),
    wrapped(
      `${formatBytes(transferBytes)} on the wire${encoding ? ` (${plainText(encoding)})` : ''}, ${formatBytes(bodyBytes)} in the browser; ${formatShare(perVisit, 1)} of visits are sent it`,
      screen,
    ),
    ...(text
      ? [
          wrapped(
            `gzip makes ${formatBytes(text.gzip)} of it, Brotli ${formatBytes(text.brotli)}${minified ? `; minified it has ${formatBytes(minified.bytes)}, and ${formatBytes(minified.gzip)} by gzip` : ''}`,
            screen,
          ),
        ]
      : []),
    ...Object.entries(headers)
      .filter(([name]) => name !== 'content-encoding')
      .map(([name, value]) => dim(`  ${wrapped(`${name}: ${plainText(value)}`, screen, 2)}`)),
    '',
    ...(site.length === 0
      ? ['Nothing was found to be wrong with it.']
      : [bold('Found'), ...site.flatMap((one) => siteFindingLines(one, origin, screen, false))]),
    '',
    `On ${count(pages.length, 'page')} of ${plainText(result.survey.label)}:`,
    ...pages
      .slice(0, top)
      .map((page) => `  ${shorten(withoutOrigin(page, origin), screen.width - 2)}`),
    ...(left > 0 ? [dim(`${count(left, 'more page')}; --top ${pages.length} shows all.`)] : []),
  ].join('\n');
}
