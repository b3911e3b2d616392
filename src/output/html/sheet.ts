import { asMarkup } from '../../core/base/markup-text.js';
import type { Region } from '../../core/base/region.js';
import type { Size } from '../../core/base/size.js';
import type { SheetPlace } from '../../core/refit/sheet-candidates.js';
import { plainText } from '../words/plain-text.js';

/** One picture of a sheet, as its styles have it. */
export interface SheetPicture {
  /** Name of the class. */
  readonly name: string;
  readonly place: Region;
  readonly alt: string | null;
  readonly url: string;
  readonly places: readonly SheetPlace[];
}

export interface Sheet {
  /** Name of the files, without folder and extension. */
  readonly name: string;
  readonly size: Size;
  readonly entries: readonly SheetPicture[];
}

/** The styles that show each picture of a sheet; the files lie beside the style sheet. */
export function sheetCss({ name, size, entries }: Sheet): string {
  const image = (density: 1 | 2, format: 'webp' | 'png') =>
    `url("${name}${density === 2 ? '@2x' : ''}.${format}") ${density}x type("image/${format}")`;
  const common = entries.map((entry) => `.${entry.name}`).join(',\n');
  const shared = [
    `${common} {`,
    '  display: inline-block;',
    `  background: url("${name}.png") 0 0 / ${size.width}px ${size.height}px no-repeat;`,
    `  background-image: image-set(${[image(1, 'webp'), image(2, 'webp'), image(1, 'png'), image(2, 'png')].join(', ')});`,
    '}',
  ];
  const rules = entries.map(({ name: own, place, url, places }) => {
    const selectors = [...new Set(places.map(({ selector }) => selector))].slice(0, 3);
    return [
      `/* ${comment(url)}, in place of ${comment(selectors.join(' and '))} */`,
      `.${own} { width: ${place.width}px; height: ${place.height}px; background-position: ${-place.left}px ${-place.top}px; }`,
    ].join('\n');
  });
  return [...shared, ...rules, ''].join('\n');
}

/** A page that shows each picture of a sheet, and the markup for it. */
export function sheetHtml(sheet: Sheet): string {
  const rows = sheet.entries.map((entry) => {
    const markup = elementText(entry);
    return `<tr><td>${markup}</td><td><code>${asMarkup(markup)}</code></td><td>${asMarkup(plainText(entry.url))}</td></tr>`;
  });
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<title>${sheet.name}</title>
<link rel="stylesheet" href="${sheet.name}.css">
<style>body { margin: 28px 32px; font: 15px/1.5 system-ui, sans-serif; } td { padding: 8px 24px 8px 0; border-top: 1px solid #d9dce1; vertical-align: middle; } code { font-size: 13px; }</style>
</head>
<body>
<h1>${sheet.name}</h1>
<p>${sheet.entries.length} pictures in one, ${sheet.size.width} × ${sheet.size.height} px. Its styles belong in the style sheet; each line is what to write in place of the image.</p>
<table>${rows.join('\n')}</table>
</body>
</html>
`;
}

/** What to write in place of the image. */
export function elementText({ name, alt }: SheetPicture): string {
  const role = alt ? ` role="img" aria-label="${asMarkup(plainText(alt))}"` : ' aria-hidden="true"';
  return `<span class="${name}"${role}></span>`;
}

/** Text of foreign origin that ends no comment. */
function comment(text: string): string {
  return plainText(text).replaceAll('*/', '*\u200a/');
}
