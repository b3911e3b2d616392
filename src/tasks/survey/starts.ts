import { UsageError } from '../../core/base/errors.js';
import type { HostMap } from '../../reach/host-map.js';
import { Reach } from '../../reach/reach.js';
import type { FolderSite } from '../../crawl/folder-site.js';
import { firstPagesIn } from '../../crawl/folder-pages.js';
import { parseStart } from '../../crawl/start.js';

/** Starts that a browser can open, and the folders served for them. */
export interface OpenStarts {
  readonly urls: readonly string[];
  /** Which machines their pages may lead to. */
  readonly reach: Reach;
  /** The hosts of the folders. */
  readonly served: ReadonlySet<string>;
  close(): Promise<void>;
}

/** What a person says of hosts. */
export interface HostOptions {
  /** Hosts that are found elsewhere than the name service says. */
  readonly hosts?: HostMap | undefined;
  /** Hosts that pages may use though they are on this machine or in its network. */
  readonly allowedHosts?: readonly string[] | undefined;
}

/**
 * Turns what a person gave into addresses; folders are served until `close`.
 *
 * @param more addresses that were given by other means, and are not begun with
 * @throws UsageError, NotFoundError when a start is neither an address nor a folder with a page in it.
 */
export async function openStarts(
  starts: readonly string[],
  { hosts = {}, allowedHosts = [] }: HostOptions,
  more: readonly string[] = [],
): Promise<OpenStarts> {
  const parsed = starts.map((text) => {
    const start = parseStart(text);
    return start.kind === 'folder' ? { ...start, pages: firstPagesIn(start.path) } : start;
  });
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
    // Loaded for folders alone: that takes a while.
    const { serveFolder } = await import('../../crawl/folder-site.js');
    const site = await serveFolder(start.path);
    if (served.has(site.host)) {
      await Promise.all([site.close(), close()]);
      throw new UsageError(`two of the folders would both be ${site.host}`, {
        hint: 'survey them one after the other, or rename one',
      });
    }
    served.set(site.host, site);
    urls.push(...start.pages.map((path) => new URL(path, site.start).href));
  }
  const folderHosts = [...served.values()].map(({ host, address }) => [host, address] as const);
  const reach = await Reach.of({
    starts: [...urls, ...more],
    hosts: { ...hosts, ...Object.fromEntries(folderHosts) },
    served: new Set(served.keys()),
    allowed: allowedHosts,
  });
  return { urls, close, served: new Set(served.keys()), reach };
}
