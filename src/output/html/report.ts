import { createHash } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { withoutSecrets } from '../../core/address/secrets.js';
import { asMarkup } from '../../core/base/markup-text.js';

/** The program of the report, as it was built: one script and one style sheet. */
export interface ReportApp {
  readonly script: string;
  readonly style: string;
}

/** Pictures of one kind in base64, of any format that browsers read, in the order in which the document counts them; empty where there is none. */
export type Pictures = Readonly<Record<string, readonly string[]>>;

/** Says in a file that it is a report of this program. */
export const reportMark = '<meta name="generator" content="zealous-lynx report">';

/** Pictures in one block: a block is taken apart when the first of them is shown. */
const perBlock = 100;

/**
 * A report as one file that asks for nothing: program, data and pictures are in it, and a content security policy allows
 * nothing else.
 *
 * @param title plain text
 */
export function reportHtml(
  title: string,
  document: object,
  pictures: Pictures,
  { script, style }: ReportApp,
): string {
  const policy = [
    "default-src 'none'",
    `script-src ${hashOf(script)}`,
    `style-src ${hashOf(style)}`,
    'img-src data:',
    "base-uri 'none'",
    "form-action 'none'",
  ].join('; ');
  return [
    '<!doctype html>',
    '<html lang="en">',
    '<head>',
    '<meta charset="utf-8">',
    `<meta http-equiv="Content-Security-Policy" content="${asMarkup(policy)}">`,
    reportMark,
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    '<meta name="color-scheme" content="light dark">',
    `<title>${asMarkup(title)}</title>`,
    '<link rel="icon" href="data:,">',
    `<style>${style}</style>`,
    '</head>',
    '<body>',
    '<div id="app"><p class="opening">Opening the report …</p></div>',
    '<noscript><p class="opening">This report is a program in a file: it needs JavaScript.</p></noscript>',
    ...Object.entries(pictures).flatMap(([kind, list]) => [...blocksOf(kind, list)]),
    block('data-0', [
      gzipSync(withoutSecrets(JSON.stringify(document)), { level: 9 }).toString('base64'),
    ]),
    `<script>${script}</script>`,
    '</body>',
    '</html>',
    '',
  ].join('\n');
}

function* blocksOf(kind: string, list: readonly string[]): Generator<string> {
  for (let at = 0; at < list.length; at += perBlock)
    yield block(`${kind}-${at / perBlock}`, list.slice(at, at + perBlock));
}

/** Data that the browser does not look at: lines of base64, which end no element. */
function block(id: string, lines: readonly string[]): string {
  return `<script type="application/octet-stream" id="${id}">${lines.join('\n')}</script>`;
}

function hashOf(text: string): string {
  return `'sha256-${createHash('sha256').update(text).digest('base64')}'`;
}
