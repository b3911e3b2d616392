import { fileFinding, hasCome } from '../site-case.js';

/** A script that a page loads twice. */
export const doubledScript = fileFinding({
  id: 'doubled-script',
  title: 'script that is loaded twice',
  doer: 'markup',
  fix: 'Load it once: two templates, or a template and a tag manager, may both bring it.',
  isWork: true,
  docs: {
    meaning:
      'A page asks for the same script more than once, under one address or with another query.',
    why: 'It runs twice: what it counts counts double, and what it sets up may clash.',
    computed:
      'By the script elements and the requests of each visit. The cost is the second copy on the wire, where it has another address.',
    ignore: 'Where the script is made to be loaded for each place that it fills.',
  },
  step: () => 'load it once',
  checkFile: (file, { sameContent, files, loadsOf }) => {
    const { resource, visits, pages } = file;
    const { url, type, transferBytes, contentHash } = resource;
    if (type !== 'script' || !hasCome(resource)) return undefined;
    // Browsers ask once for what two elements name.
    const named = loadsOf(file).map(
      ({ parts }) => parts.scripts.filter((script) => script.url === url).length,
    );
    const times = Math.max(resource.times, ...named);
    const told = { url, times, other: null as string | null, pages: pages.length };
    if (times > 1) return { data: told, bytes: null };
    const nameOf = (address: string) => address.split(/[?#]/)[0]!;
    const alike = contentHash === null ? files : (sameContent.get(contentHash) ?? []);
    const other = alike.find(
      ({ resource: one, visits: others }) =>
        one.url < url &&
        nameOf(one.url) === nameOf(url) &&
        visits.some((at) => others.includes(at)),
    );
    if (!other || contentHash === null) return undefined;
    return { data: { ...told, times: 2, other: other.resource.url }, bytes: transferBytes };
  },
  describe: ({ times, other, pages }, { count }) =>
    `is loaded ${times === 2 ? 'twice' : count(times, 'time')} by a page${other === null ? '' : `, the other time as ${other}`} (on ${count(pages, 'page')})`,
});
