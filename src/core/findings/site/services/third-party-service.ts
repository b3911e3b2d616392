import { mean } from 'simple-statistics';
import { hasCome, serviceFinding } from '../site-case.js';

/** All that a third party sends to the pages, and what it costs them. */
export const thirdPartyService = serviceFinding({
  id: 'third-party-service',
  title: 'third party’s service',
  doer: 'markup',
  fix: 'Ask who still needs it. Load it where it is needed alone, after the page is usable.',
  isWork: false,
  docs: {
    meaning: 'Pages load files from a registrable domain that is not the site’s own.',
    why: 'What it costs falls on the site, and nobody at the site controls how much that is.',
    computed:
      'All files of the domain on the wire in an average visit, images too; the time that its scripts were busy in long frames (Long Animation Frames); whether any of them blocks rendering. On some pages only, if it is not on all.',
    ignore: 'Where it is what the page is for: a map, a film, the till.',
  },
  checkService: ({ domain, thirdParty, files, pages }, site) => {
    // What never answers is another finding.
    if (!thirdParty || !files.some(({ resource }) => hasCome(resource))) return undefined;
    const bytes = files.reduce(
      (sum, { resource, perVisit }) => sum + resource.transferBytes * perVisit,
      0,
    );
    const isOf = (url: string) => site.partyOf(url) === domain;
    const time = site.pages.reduce((sum, { perVisit, loads }) => {
      const times = loads.map(({ scriptTimes }) =>
        scriptTimes.reduce((all, one) => all + (isOf(one.url) ? one.time : 0), 0),
      );
      return sum + (times.length > 0 ? mean(times) * perVisit : 0);
    }, 0);
    const data = {
      domain,
      requests: files.length,
      bytesPerVisit: Math.round(bytes),
      mainThreadTime: Math.round(time),
      blocking: files.filter(({ resource }) => resource.renderBlocking).length,
      pages: pages.length,
      allPages: site.pages.length,
    };
    return { data, bytes, time: time > 0 ? time : null };
  },
  describe: (
    { domain, requests, bytesPerVisit, mainThreadTime, blocking, pages, allPages },
    { bytes, time, count },
  ) => {
    const where =
      pages < allPages ? `${pages} of ${count(allPages, 'page')}` : count(pages, 'page');
    const busy =
      mainThreadTime > 0 ? `, keeps the main thread busy for ${time(mainThreadTime)}` : '';
    const blocks = blocking > 0 ? `, blocks rendering with ${count(blocking, 'file')}` : '';
    return `${domain} sends ${count(requests, 'file')} to ${where}, ${bytes(bytesPerVisit)} per visit${busy}${blocks}`;
  },
});
