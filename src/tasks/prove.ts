import { existsSync, statSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join, resolve, sep } from 'node:path';
import { load } from 'cheerio';
import type { ProvedFile } from '../browser/prove/page-prover.js';
import type { Access } from '../core/address/access.js';
import { messageOf, NotFoundError, PageError, UsageError } from '../core/base/errors.js';
import type { Policy } from '../core/policy/policy.js';
import { problemOf } from '../core/refit/markup/markup-try.js';
import type { LaidOutImage, MarkupTry } from '../core/refit/markup/markup-try.js';
import type { Proof, ViewProof } from '../core/refit/markup/proof.js';
import { offeredWidths, parseSrcset } from '../core/slots/srcset.js';
import type { Candidate } from '../core/slots/srcset.js';
import type { View } from '../core/visitors/view.js';
import { isMarked, markAddresses, unmarked } from './marked-addresses.js';
import { noProgress } from './progress.js';
import type { TaskOptions } from './progress.js';
import { openStarts } from './survey/starts.js';
import type { HostOptions } from './survey/starts.js';

export interface ProveOptions extends TaskOptions, HostOptions {
  readonly views: readonly View[];
  readonly policy: Pick<Policy, 'density'>;
  readonly accesses?: readonly Access[];
  /** Bytes that all processes of the browser may have; by default what the machine can bear. */
  readonly memory?: number | undefined;
  /** Style rules that go live with the markup. */
  readonly styles?: string;
  /** A folder with files that the site does not have yet, at their paths on the site. */
  readonly files?: string | undefined;
}

/**
 * Tries markup in the place of an image of a page, in every view: the element keeps its box, nothing around it moves, it gets
 * no softer, and the browser chooses the candidate that fits.
 *
 * @param page an address, or a folder of a static site
 * @param selector of the `<img>`, as `rank` and `explain` print it
 * @throws UsageError when the markup is no image, NotFoundError when no view has the element, PageError when the page cannot be
 *   loaded.
 */
export async function prove(
  page: string,
  selector: string,
  markup: string,
  options: ProveOptions,
): Promise<Proof> {
  const {
    views,
    policy,
    files,
    styles = '',
    accesses = [],
    signal,
    onProgress = noProgress,
  } = options;
  const candidates = candidatesOf(markup, selector);
  const open = await openStarts([page], options);
  try {
    const [url = '', ...others] = open.urls;
    if (others.length > 0)
      throw new UsageError(`${page} has no index.html, and several pages`, {
        hint: 'serve it, and give the address of one page',
      });
    const { PageProver } = await import('../browser/prove/page-prover.js');
    const prover = await PageProver.open({
      ...{ views, reach: open.reach, accesses, rules: styles, memory: options.memory },
      fileAt: (requested) => fileAt(requested, url, files),
    });
    try {
      const proved: ViewProof[] = [];
      const absent: View[] = [];
      for (const [done, view] of views.entries()) {
        if (signal?.aborted) break;
        onProgress({ stage: 'proof', done, total: views.length, doing: view.name });
        let last: MarkupTry | undefined;
        const judge = (tried: MarkupTry) => {
          last = tried;
          return problemOf(tried, {
            ...{ density: view.density, enough: policy.density },
            fileAt: (address) => knownFile(address, tried, url, candidates),
          });
        };
        const text = markAddresses(markup);
        const [problem] = await prover
          .prove(url, view, [{ selector, text }], judge)
          .catch((error: unknown) => {
            throw new PageError(`${url} in ${view.name}: ${messageOf(error)}`);
          });
        if (problem === undefined || !last) absent.push(view);
        else proved.push(plainProof({ view, problem, before: last.before, after: last.after }));
      }
      if (proved.length === 0 && !signal?.aborted)
        throw new NotFoundError(`${url} has no <img> at ${selector} in any view`, {
          hint: 'rank and explain print the selectors of the images of a page',
        });
      return { page: url, selector, views: proved, absent };
    } finally {
      await prover.close();
    }
  } finally {
    await open.close();
  }
}

/** The candidates that markup offers together, source by source. */
function candidatesOf(markup: string, selector: string): readonly (readonly Candidate[])[] {
  if (selector.includes('>>>'))
    throw new UsageError('markup inside a frame or a shadow root cannot be tried', {
      hint: 'give the address of the frame as the page',
    });
  const $ = load(markup, null, false);
  const root = $.root().children();
  const isImage = root.length === 1 && root.is('img, picture') && $('img').length === 1;
  if (!isImage)
    throw new UsageError('the markup is not one <img>, or one <picture> with its <img>', {
      hint: 'give the element alone, without what stands around it',
    });
  return $('img, source')
    .toArray()
    .map((element) => parseSrcset($(element).attr('srcset') ?? ''));
}

/** What is served for a marked address: the file of the folder, or what the site has there. */
function fileAt(requested: string, page: string, folder?: string): ProvedFile | undefined {
  if (!isMarked(requested)) return undefined;
  const instead = unmarked(requested);
  const address = new URL(instead);
  const path =
    folder !== undefined && address.host === new URL(page).host && pathIn(folder, address);
  if (!path) return { instead };
  return {
    mediaType: mediaTypes[path.split('.').at(-1)!.toLowerCase()] ?? '',
    body: () => readFile(path),
  };
}

/** The file of a folder at the path of an address; nothing outside of it. */
function pathIn(folder: string, { pathname }: URL): string | undefined {
  try {
    const top = resolve(folder);
    const path = join(top, decodeURIComponent(pathname));
    return path.startsWith(top + sep) && existsSync(path) && statSync(path).isFile()
      ? path
      : undefined;
  } catch {
    return undefined;
  }
}

/** Media types of images, by the ends of their names. */
const mediaTypes: Readonly<Record<string, string>> = {
  avif: 'image/avif',
  gif: 'image/gif',
  jpeg: 'image/jpeg',
  jpg: 'image/jpeg',
  png: 'image/png',
  svg: 'image/svg+xml',
  webp: 'image/webp',
};

function knownFile(
  address: string,
  { before, after }: MarkupTry,
  page: string,
  candidates: readonly (readonly Candidate[])[],
) {
  const file = [before, after].find(({ url }) => url === address);
  if (!file || file.pixels === 0) return undefined;
  const plain = unmarked(address);
  const isIt = ({ url }: Candidate) => URL.canParse(url, page) && new URL(url, page).href === plain;
  const set = address === after.url ? candidates.find((some) => some.some(isIt)) : undefined;
  return { width: file.pixels, offered: set ? offeredWidths(set) : [] };
}

/** A proof in which addresses are those of the site. */
function plainProof({ view, problem, before, after }: ViewProof): ViewProof {
  const told = (image: LaidOutImage) => ({ ...image, url: unmarked(image.url) });
  return {
    ...{ view, problem: problem && unmarked(problem) },
    ...{ before: told(before), after: told(after) },
  };
}
