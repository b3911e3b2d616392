import { join } from 'node:path';
import { writeFiles } from './folder.js';
import { photograph, scene } from './pictures.js';

/** Writes a site of one page, `bay`, on which three photographs are far too large; `#beach` wastes the most, `#kites` the least. */
export async function wastefulPage(folder: string): Promise<string> {
  const site = join(folder, 'bay');
  writeFiles(site, {
    'index.html': `<!doctype html><title>Bay</title><style>img{display:block}</style>
      <img id="beach" src="img/beach.jpg" width="400"><img id="kites" src="img/kites.jpg" width="300">
      <img id="sand" src="img/sand.jpg" width="200">`,
    'img/beach.jpg': await scene(1600, 1000).jpeg({ quality: 97 }).toBuffer(),
    'img/kites.jpg': await scene(1000, 700).flop().jpeg({ quality: 95 }).toBuffer(),
    'img/sand.jpg': await photograph(500, 300).jpeg({ quality: 95 }).toBuffer(),
  });
  return site;
}

/** What an average visit wastes, in kilobytes, as a sentence tells it; estimated or not. */
export const wasteIn = (text: string) => Number(/wastes (?:about )?([\d.]+) kB/.exec(text)?.[1]);

/** The slots of a table that have ids, in its order. */
export const slotsIn = (text: string) => text.match(/^#\w+/gm);
