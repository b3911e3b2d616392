import ExifReader from 'exifreader';
import { noCredit } from '../core/refit/credit.js';
import type { Credit } from '../core/refit/credit.js';

/** A tag as the reader reports it, whatever its source. */
interface Tag {
  readonly description?: unknown;
  readonly value?: unknown;
}
type Tags = Readonly<Record<string, Tag | undefined>>;

/**
 * What a picture says of itself, read from XMP, IPTC and EXIF, in this order: the first holds any letter, the last only
 * few. Never throws: what cannot be read says nothing.
 */
export function readCredit(body: Buffer): Credit {
  try {
    const found = ExifReader.load(body, { expanded: true }) as Readonly<
      Record<string, Tags | undefined>
    >;
    const { xmp = {}, iptc = {}, exif = {} } = found;
    const first = (...tags: readonly (Tag | undefined)[]) =>
      tags.map(textOf).find((text) => text !== null) ?? null;
    return {
      title: first(xmp['title'], iptc['Object Name'], iptc['Headline']),
      description: first(xmp['description'], iptc['Caption/Abstract'], exif['ImageDescription']),
      creator: first(xmp['creator'], iptc['By-line'], exif['Artist']),
      copyright: first(xmp['rights'], iptc['Copyright Notice'], exif['Copyright']),
      keywords: listOf(xmp['subject'] ?? iptc['Keywords']),
    };
  } catch {
    return noCredit;
  }
}

function textOf(tag: Tag | undefined): string | null {
  const text = typeof tag?.description === 'string' ? tag.description.trim() : '';
  return text === '' ? null : text;
}

function listOf(tag: Tag | undefined): string[] {
  if (!tag) return [];
  const items: readonly unknown[] = Array.isArray(tag.value) ? tag.value : [];
  const texts = items.flatMap((item) => textOf(item as Tag) ?? []);
  return texts.length > 0 ? texts : (textOf(tag)?.split(/,\s*/) ?? []);
}
