import { pageFinding } from '../site-case.js';

/** A file that a page preloads and does not use. */
export const unusedPreload = pageFinding({
  id: 'unused-preload',
  title: 'preload that nothing uses',
  doer: 'markup',
  fix: 'Remove the link with rel="preload", or correct its address and its as.',
  isWork: true,
  docs: {
    meaning:
      'The document has a preload whose file no element, style sheet or font of the page uses.',
    why: 'Preloads come before what the page needs.',
    computed:
      'By what the page shows, links to and draws with after it was scrolled; what scripts fetch is not judged. The cost is the file on the wire.',
    ignore: 'Where the file is for what the visitor does next: then prefetch it instead.',
  },
  checkPage: ({ loads, files }) => {
    const hints = loads.flatMap(({ parts }) => parts.hints);
    // A font without crossorigin is fetched twice: that is another finding.
    const preloads = hints.filter(
      ({ rel, as, crossOrigin }) => rel === 'preload' && (as !== 'font' || crossOrigin),
    );
    return [...new Set(preloads.map(({ url }) => url))].flatMap((url) => {
      const uses = preloads.filter((hint) => hint.url === url).map(({ used }) => used);
      const file = files.find(({ resource }) => resource.url === url);
      if (!file || uses.some((used) => used !== false)) return [];
      const { transferBytes } = file.resource;
      return [{ data: { file: url, transferBytes }, bytes: transferBytes, together: url }];
    });
  },
  step: ({ file }) => `remove the preload of ${file}`,
  describe: ({ file, transferBytes }, { bytes }) =>
    `preloads ${file} (${bytes(transferBytes)}) and does not use it`,
});
