import { elementText } from '../html/sheet.js';
import type { Sheet } from '../html/sheet.js';

/**
 * A sheet of small images as the document `zealous-lynx.sheet/1`: its files, and what to write where.
 *
 * @param style path of its style sheet, below the refit's folder
 * @param files those that the style sheet names
 */
export function sheetDocument(
  { entries }: Sheet,
  style: string,
  files: readonly { readonly path: string; readonly mediaType: string }[],
) {
  return {
    format: 'zealous-lynx.sheet/1',
    ...{ style, files },
    pictures: entries.map((entry) => ({
      url: entry.url,
      text: elementText(entry),
      places: entry.places,
    })),
  };
}
