import { leastSaved, fileFinding, hasCome } from '../site-case.js';

/** A page group that uses less than this part of what another one uses does not need the file. */
const littleUse = 0.1;

/** A style sheet or a script that all page groups load, and only some need. */
export const neededByFew = fileFinding({
  id: 'needed-by-few',
  title: 'file that only some templates need, but others load, too',
  doer: 'markup',
  fix: 'Load the file only on the pages of the templates that need it.',
  isWork: true,
  docs: {
    meaning:
      'Pages of some page groups use hardly anything of a style sheet or a script that other groups need.',
    why: 'Their visitors wait for what other pages are made of.',
    computed:
      'By the rules that match and the functions that are called: a group that uses less than a tenth of what the group uses that needs the file most does not need it. The cost is the file on the wire, in the visits of the groups that do not need it.',
    ignore: 'Where most visitors come to a page that needs it next, and the file is small.',
  },
  checkFile: (file, site) => {
    const { url, wireBytes } = file.resource;
    const usage = hasCome(file.resource) ? site.usageOf(file) : undefined;
    if (!usage || usage.unusedBy.size < 2) return undefined;
    const used = [...usage.unusedBy].map(
      ([group, unused]) => [group, usage.units - unused] as const,
    );
    const most = Math.max(...used.map(([, units]) => units));
    const idle = new Set(
      used.filter(([, units]) => units < littleUse * most).map(([group]) => group),
    );
    const pages = site.pages.filter(({ url: page }) => file.pages.includes(page));
    const idlePages = pages.filter(({ url: page, group }) => idle.has(group ?? page));
    const weight = (some: typeof pages) => some.reduce((sum, page) => sum + page.perVisit, 0);
    const share = weight(pages) > 0 ? weight(idlePages) / weight(pages) : 0;
    if (idle.size === 0 || share * wireBytes < leastSaved) return undefined;
    const needed = used.map(([group]) => group).filter((group) => !idle.has(group));
    const data = {
      url,
      wireBytes,
      needed: needed.slice(0, 10),
      idle: [...idle].slice(0, 10),
      idlePages: idlePages.length,
    };
    return { data, bytes: share * wireBytes };
  },
  step: ({ needed }) => `load it only where it is needed: ${needed.join(', ')}`,
  describe: ({ wireBytes, needed, idle, idlePages }, { bytes, count }) =>
    `is needed by ${needed.join(', ')}; ${count(idlePages, 'page')} of ${idle.join(', ')} ${idlePages === 1 ? 'loads' : 'load'} its ${bytes(wireBytes)}, too`,
});
