import { UsageError } from '../../core/base/errors.js';
import type { HostMap } from '../../browser/chromium/host-map.js';
import { serveFolder } from '../../crawl/folder-site.js';
import type { FolderSite } from '../../crawl/folder-site.js';
import { parseStart } from '../../crawl/start.js';

/** Starts that a browser can open, and the folders served for them. */
export interface OpenStarts {
  readonly urls: readonly string[];
  readonly hosts: HostMap;
  /** The hosts of the folders. */
  readonly served: ReadonlySet<string>;
  close(): Promise<void>;
}

/**
 * Turns what a person gave into addresses; folders are served until `close`.
 *
 * @param hosts hosts that are found elsewhere than the name service says
 * @throws UsageError, NotFoundError when a start is neither an address nor a folder.
 */
export async function openStarts(starts: readonly string[], hosts: HostMap): Promise<OpenStarts> {
  const parsed = starts.map(parseStart);
  const served = new Map<string, FolderSite>();
  const close = async () => {
    await Promise.all([...served.values()].map((site) => site.close()));
  };
  const urls: string[] = [];
  for (const start of parsed) {
    if (start.kind === 'address') {
      urls.push(start.url);
      continue;
    }
    const site = await serveFolder(start.path);
    if (served.has(site.host)) {
      await Promise.all([site.close(), close()]);
      throw new UsageError(`two of the folders would both be ${site.host}`, {
        hint: 'survey them one after the other, or rename one',
      });
    }
    served.set(site.host, site);
    urls.push(site.start);
  }
  const folderHosts = [...served.values()].map(({ host, address }) => [host, address] as const);
  return {
    ...{ urls, close, served: new Set(served.keys()) },
    hosts: { ...hosts, ...Object.fromEntries(folderHosts) },
  };
}
