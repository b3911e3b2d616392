import { accessHeaders } from '../../core/address/access.js';
import type { Access } from '../../core/address/access.js';
import { fetchFile } from '../../crawl/fetch-file.js';
import type { FetchedFile } from '../../crawl/fetch-file.js';
import { Robots, robotName, robotsLimit } from '../../crawl/robots.js';
import type { Reach } from '../../reach/reach.js';
import type { Workspace } from '../../store/workspace.js';
import { openStarts } from '../survey/starts.js';
import type { HostOptions, OpenStarts } from '../survey/starts.js';

/** The `Accept` header of browsers for images. */
const accepted = 'image/avif,image/webp,image/svg+xml,image/*,*/*;q=0.8';
const maxBytes = 64_000_000;
const patience = 30_000;

/** Images of a survey, as servers send them now. */
export interface OpenImages {
  readonly fetch: (url: string) => Promise<FetchedFile>;
  /** Why robots.txt forbids an address that no page named; `undefined` if it does not. */
  readonly refusal: (url: string) => Promise<string | undefined>;
  /** Which machines may be connected to; folders are served by then. */
  readonly reach: () => Promise<Reach>;
  close(): Promise<void>;
}

/**
 * Requests images where a survey found them; folders of static sites are served again when the first of them
 * is requested.
 */
export function openImages(
  workspace: Workspace,
  label: string | undefined,
  { accesses, ...hosts }: HostOptions & { readonly accesses: readonly Access[] },
): OpenImages {
  let starts: Promise<OpenStarts> | undefined;
  const open = () => {
    const { id } = workspace.surveys.find(label);
    return (starts ??= openStarts(workspace.surveys.plan(id).given, hosts));
  };
  const fetch = async (url: string, limit: number) =>
    fetchFile(url, {
      reach: (await open()).reach,
      userAgent: robotName,
      headersFor: (address) => ({ accept: accepted, ...accessHeaders(accesses, address) }),
      limit,
      timeout: patience,
    });
  const robots = new Robots((url) => fetch(url, robotsLimit));
  return {
    fetch: (url) => fetch(url, maxBytes),
    refusal: (url) => robots.refusal(url),
    reach: async () => (await open()).reach,
    close: async () => (await starts)?.close(),
  };
}
