import pLimit from 'p-limit';
import { messageOf } from '../../core/base/errors.js';
import type { Access } from '../../core/address/access.js';
import { groupBy } from '../../core/base/group-by.js';
import type { Policy } from '../../core/policy/policy.js';
import { problemOf } from '../../core/refit/markup/markup-try.js';
import type { KnownFile } from '../../core/refit/markup/markup-try.js';
import { addressOf, filesOfJob } from '../../core/refit/markup/refitted-element.js';
import type { MadeJob } from '../../core/refit/refit-job.js';
import { snippetRules } from '../../core/refit/markup/snippet.js';
import type {
  ProvedSnippets,
  Snippet,
  Snippets,
  WithheldSnippet,
} from '../../core/refit/markup/snippet.js';
import { attributeOf } from '../../core/slots/element-markup.js';
import { offeredWidths, parseSrcset } from '../../core/slots/srcset.js';
import type { View } from '../../core/visitors/view.js';
import type { Reach } from '../../reach/reach.js';
import type { ProvedFile } from '../../browser/prove/page-prover.js';
import type { Workspace } from '../../store/workspace.js';
import { isMarked, markAddresses, unmarked } from '../marked-addresses.js';
import { noProgress } from '../progress.js';
import type { TaskOptions } from '../progress.js';

export interface ProofInputs {
  readonly views: readonly View[];
  readonly reach: Reach;
  readonly accesses: readonly Access[];
  /** Bytes that all processes of the browser may have; by default what the machine can bear. */
  readonly memory?: number | undefined;
  readonly policy: Pick<Policy, 'density'>;
  readonly jobs: readonly MadeJob[];
  /** Pixels across of the files that the site has, by address. */
  readonly widthAt: ReadonlyMap<string, number>;
}

/** Pages that are loaded at the same time. */
const atOnce = 2;
/** The most elements of one page that one snippet is tried in. */
const mostPlaces = 3;

/**
 * Tries every snippet in a page that it is for, in every view: the element keeps its box, nothing around it moves, and the
 * browser chooses the file that is meant. What does not hold is withheld, with the reason.
 */
export async function proveSnippets(
  workspace: Workspace,
  drafts: Snippets,
  inputs: ProofInputs,
  options: TaskOptions,
): Promise<ProvedSnippets> {
  const first = await proveOnce(workspace, drafts, inputs, options);
  const { snippets, withheld, proved, untried, failed } = first;
  const others = [...failed.keys()].flatMap(({ orElse }) => orElse ?? []);
  const lost = [...failed].flatMap(([{ url, places, orElse }, reason]): WithheldSnippet[] =>
    orElse ? [] : [{ url, places, reason }],
  );
  if (others.length === 0) return { snippets, withheld: [...withheld, ...lost], proved, untried };
  const again = { snippets: others, withheld: [] };
  const second = await proveSnippets(workspace, again, inputs, options);
  return {
    snippets: [...snippets, ...second.snippets],
    withheld: [...withheld, ...lost, ...second.withheld],
    proved: new Set([...proved, ...second.proved]),
    untried: [...new Set([...untried, ...second.untried])],
  };
}

/** Tries snippets once; tells what is wrong with those that do not hold. */
async function proveOnce(
  workspace: Workspace,
  { snippets, withheld }: Snippets,
  inputs: ProofInputs,
  { signal, onProgress = noProgress }: TaskOptions,
): Promise<ProvedSnippets & { readonly failed: ReadonlyMap<Snippet, string> }> {
  const html = snippets.filter(({ language }) => language === 'html');
  if (html.length === 0)
    return { snippets, withheld, proved: new Set(), untried: [], failed: new Map() };
  const { PageProver } = await import('../../browser/prove/page-prover.js');
  const files = filesByPath(workspace, inputs.jobs);
  const prover = await PageProver.open({
    ...{ views: inputs.views, reach: inputs.reach, accesses: inputs.accesses },
    ...{ memory: inputs.memory, rules: snippetRules },
    fileAt: (url) =>
      isMarked(url) ? (files.get(new URL(url).pathname) ?? { instead: unmarked(url) }) : undefined,
  });
  const problems = new Map<Snippet, string>();
  const untried = new Map<Snippet, string>();
  const pages = groupBy(html, ({ places }) =>
    pageFor(
      places.map(({ page }) => page),
      html,
    ),
  );
  const total = pages.size * inputs.views.length;
  let done = 0;
  try {
    const limit = pLimit(atOnce);
    const visits = [...pages].flatMap(([page, some]) =>
      inputs.views.map((view) => ({ page, view, some })),
    );
    await Promise.all(
      visits.map(({ page, view, some }) =>
        limit(async () => {
          if (signal?.aborted) return;
          onProgress({ stage: 'proof', done: done++, total, doing: page });
          await proveIn(page, view, some).catch((error: unknown) => {
            for (const snippet of some) untried.set(snippet, `${page}: ${messageOf(error)}`);
          });
        }),
      ),
    );
  } finally {
    await prover.close();
  }
  onProgress({ stage: 'proof', done: total, total, doing: '' });
  const held = snippets.filter((snippet) => !problems.has(snippet));
  return {
    snippets: held,
    withheld,
    failed: problems,
    proved: new Set(held.filter((one) => html.includes(one) && !untried.has(one))),
    untried: [...new Set(untried.values())],
  };

  async function proveIn(page: string, view: View, some: readonly Snippet[]): Promise<void> {
    const tries = some
      .filter((snippet) => !problems.has(snippet))
      .flatMap((snippet) =>
        snippet.places
          .filter((place) => place.page === page)
          .slice(0, mostPlaces)
          .map(({ selector }) => ({
            ...{ snippet, selector },
            text: markAddresses(snippet.text),
          })),
      );
    const reachable = tries.filter(({ selector }) => !selector.includes('>>>'));
    for (const { snippet, selector } of tries)
      if (selector.includes('>>>')) untried.set(snippet, 'it is inside a frame or a shadow root');
    const known = reachable.map(({ snippet }) => knownFiles(snippet, page, inputs));
    const results = await prover.prove(page, view, reachable, (tried, at) =>
      problemOf(tried, {
        ...{ density: view.density, enough: inputs.policy.density },
        fileAt: known[at]!,
      }),
    );
    results.forEach((problem, at) => {
      const { snippet } = reachable[at]!;
      if (problem === undefined) untried.set(snippet, `${page} has no such element now`);
      else if (problem !== null) problems.set(snippet, `in ${view.name}, ${unmarked(problem)}`);
    });
  }
}

/** Of the pages of a snippet, the one that serves for the most others. */
function pageFor(pages: readonly string[], all: readonly Snippet[]): string {
  const known = counts.get(all) ?? countPages(all);
  counts.set(all, known);
  return pages.reduce((best, page) =>
    (known.get(page) ?? 0) > (known.get(best) ?? 0) ? page : best,
  );
}

const counts = new WeakMap<readonly Snippet[], Map<string, number>>();

function countPages(snippets: readonly Snippet[]): Map<string, number> {
  const found = new Map<string, number>();
  for (const { places } of snippets)
    for (const page of new Set(places.map((place) => place.page)))
      found.set(page, (found.get(page) ?? 0) + 1);
  return found;
}

/** The files of a refit by their paths on the site. */
function filesByPath(workspace: Workspace, jobs: readonly MadeJob[]): Map<string, ProvedFile> {
  return new Map(
    jobs.flatMap((job) =>
      [job.file, ...job.variants.map((one) => ({ ...one, mediaType: `image/${one.format}` }))].map(
        ({ path, resultHash, mediaType }) => [
          new URL(addressOf(job, { path }), 'http://site.invalid/').pathname,
          { mediaType, body: () => workspace.bodies.read(resultHash) },
        ],
      ),
    ),
  );
}

/** The files that a snippet offers, and those that its element has now. */
function knownFiles(
  { after }: Snippet,
  page: string,
  { jobs, widthAt }: ProofInputs,
): (url: string) => KnownFile | undefined {
  const made = new Map(
    jobs.flatMap((job) =>
      filesOfJob(job).map(
        (offer) => [new URL(addressOf(job, offer), page).pathname, offer.width] as const,
      ),
    ),
  );
  const sets = [after!.attributes, ...(after!.picture?.sources ?? [])].map((attributes) => {
    const srcset = attributeOf(attributes, 'srcset');
    return srcset === null ? [] : parseSrcset(srcset);
  });
  return (marked) => {
    const url = unmarked(marked);
    // An image that has not chosen yet has no address.
    if (!URL.canParse(url)) return undefined;
    const declared = sets.flatMap((candidates) => {
      const own = candidates.find((one) => new URL(one.url, page).href === url);
      return own ? [{ width: own.width, offered: offeredWidths(candidates) }] : [];
    })[0];
    const width = declared?.width ?? made.get(new URL(url).pathname) ?? widthAt.get(url);
    return width === undefined ? undefined : { width, offered: declared?.offered ?? [] };
  };
}
