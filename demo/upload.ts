import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { load } from 'cheerio';
import sharp from 'sharp';
import { writeWhole } from '../src/store/write-whole.js';
import type { Deployment } from './deploy.js';
import { draw } from './pictures/draw.js';
import { bay } from './pictures/scenes.js';

/** The page on which an editor gives a story another photograph, and its address. */
const page = '/journal/';
const address = '/img/journal/DSC_0917.jpg';

/** As the camera made it. */
const original = { width: 4_500, height: 3_000, quality: 95 } as const;
/** As wide as the list of stories shows it on the densest screens that count. */
const mendedWidth = 400;

/** Draws the photograph of the upload as the camera made it, and as it should be, unless it is there. */
export async function drawUpload(pictures: string): Promise<{ original: string; mended: string }> {
  const files = {
    original: join(pictures, 'uploads', 'DSC_0917.jpg'),
    mended: join(pictures, 'uploads', 'DSC_0917-mended.jpg'),
  };
  if (!existsSync(files.original))
    await writeWhole(
      files.original,
      await draw({
        ...{ kind: 'photograph', path: 'uploads/DSC_0917.jpg', ...original },
        ...{ paint: bay, light: 'evening', seed: 917 },
      }),
    );
  if (!existsSync(files.mended))
    await writeWhole(
      files.mended,
      await sharp(files.original)
        .resize(mendedWidth)
        .jpeg({ quality: 50, mozjpeg: true })
        .toBuffer(),
    );
  return files;
}

/** A site on which an editor has given the first story another photograph, as an editor does it: a plain image, whatever the file. */
export function withUpload(site: Deployment, origin: string, file: string): Deployment {
  const base = origin.replace(/\/$/, '');
  return {
    text: (text) => site.text(text),
    isCompressed: (url) => site.isCompressed(url),
    page: (url, html) => {
      const body = site.page(url, html);
      if (url !== base + page) return body;
      const $ = load(body);
      const shown = $('.stories li').first().find('picture, img').first();
      shown.replaceWith(`<img src="${address}" alt="Kites over the bay in the evening">`);
      return $.html();
    },
    file: (url) =>
      url === base + address ? { path: file, mediaType: 'image/jpeg' } : site.file(url),
  };
}
