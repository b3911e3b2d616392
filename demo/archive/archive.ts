import { css, digits, stylesheet } from './sin.js';
import type { Place } from './sin.js';
import { sinsByPage } from './sins/index.js';
import { serveSins } from './server.js';
import type { ServedArchive, SinPage } from './server.js';

/** The host of the festival's archive: pages that nobody looks after any more. */
export const archiveHost = 'archive.brindlebay.test';
const origin = `https://${archiveHost}`;

function placeOf(name: string): Place {
  return {
    id: name,
    page: `${origin}/${name}/`,
    file: (file, subdomain) =>
      `https://${subdomain === undefined ? '' : `${subdomain}.`}${archiveHost}/${name}/${file}`,
    third: (party, file) => `https://${party}-${name}.test/${file}`,
  };
}

const titles: Readonly<Record<string, string>> = {
  texts: 'Letters to the editor',
  leftovers: 'The fair of 2019',
  order: 'Order of flights',
  caches: 'Results',
  kept: 'Rules',
  servers: 'Harbour board',
  partners: 'Partners',
  busy: 'Counting kites',
  moving: 'The bay from above',
  letters: 'How the programme is set',
  posters: 'How the posters are set',
  films: 'Films of the bay',
};

/** The page that has no fault. */
const soundPage = 'well';
/** The page that needs the style sheet which all load. */
const albumPage = 'films';

const albumUrl = `${origin}/album.css`;
const tiles = Array.from({ length: 160 }, (_, at) => digits(`album ${at}`).slice(0, 10));
const albumCss = tiles.map((name, at) => `.t${name}{padding-left:${at}px}`).join('');
const album = `<div>${tiles.map((name) => `<i class="t${name}"></i>`).join('')}</div>`;

/**
 * Serves the archive: a page for each kind of sin, one that loads for all what it needs alone, and one without a fault.
 *
 * @param isMended whether all of them are mended
 */
export async function serveArchive(
  isMended = false,
): Promise<ServedArchive & { readonly start: string }> {
  const names = [...Object.keys(sinsByPage), soundPage];
  const pages = names.map((name): SinPage => {
    const needsAlbum = name === albumPage;
    const loadsAlbum = needsAlbum || (!isMended && name !== soundPage);
    return {
      title: titles[name] ?? 'A page without a fault',
      place: placeOf(name),
      sins: (sinsByPage[name] ?? []).map((sin) => ({ sin, isMended })),
      head: loadsAlbum ? stylesheet(albumUrl) : '',
      body: needsAlbum ? album : '',
      files: { [albumUrl]: css(albumCss) },
    };
  });
  const start = `${origin}/`;
  const served = await serveSins(pages, (found) => ({
    title: 'The archive of the Brindle Bay Kite Festival',
    place: { ...placeOf(''), page: start },
    sins: [],
    body: found.map((url, at) => `<p><a href="${url}">${pages[at]!.title}</a></p>`).join(''),
  }));
  return { ...served, start };
}
