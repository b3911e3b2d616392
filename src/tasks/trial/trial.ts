import type { Browser } from 'playwright-core';
import { splitCredentials } from '../../core/address/access.js';
import { launchBrowser } from '../../browser/chromium/launch.js';
import { defaultColdLoadLimits } from '../../browser/load/cold-load.js';
import { unshaped } from '../../core/visitors/network.js';
import { trialDocument } from '../../output/json/trial.js';
import { throwAwayCertificate } from '../../replay/certificate.js';
import type { ThrowAwayCertificate } from '../../replay/certificate.js';
import type { Workspace } from '../../store/workspace.js';
import { conditionsOf } from '../clock/clock-conditions.js';
import { pageOf } from '../clock/load-in-turn.js';
import { Reach } from '../../reach/reach.js';
import { noProgress } from '../progress.js';
import { openStarts } from '../survey/starts.js';
import { contentHashOf } from '../../images/hash.js';
import { chooseFixes } from './apply-fixes.js';
import type { FixTools } from './fixes/fix.js';
import { readRecordedHar } from './read-recorded-har.js';
import { recordPage } from './record-page.js';
import type { RecordedPage } from './record-page.js';
import { readRefit } from './refit-to-try.js';
import type { TriedPage, TrialOptions, TrialOutcome } from './trial-options.js';
import { tryPage } from './try-page.js';

export type { TriedPage, TrialOptions, TrialOutcome } from './trial-options.js';

/**
 * Records pages, puts fixes into the recordings, and loads them as they are and as they would be, in turn, under one set
 * of conditions, from this machine alone.
 *
 * @throws PageError when a page cannot be recorded, or no load of a side succeeded; NotFoundError, UsageError for a HAR
 *   file, a refit or a folder that is none; SettingError for an unknown fix; BrowserError when there is no browser.
 */
export async function trial(
  workspace: Workspace,
  pages: readonly string[],
  options: TrialOptions,
): Promise<TrialOutcome> {
  const { signal, refit, files, withoutHosts } = options;
  const store = workspace.recordedBodies;
  const tools: FixTools = {
    read: (hash) => store.read(hash),
    keep: async (body) => {
      const hash = contentHashOf(body);
      await store.keep(hash, body);
      return { hash, bytes: body.length };
    },
    refit: refit === undefined ? null : await readRefit(refit),
    files: files ?? null,
    hosts: withoutHosts,
  };
  const fixes = chooseFixes(options, tools);
  const label = options.label ?? nextLabel(workspace);
  // It takes a while to start, and is not needed before the pages are recorded.
  const starting = startReplaying(options);
  // Whoever awaits it hears of it.
  starting.catch(() => {});
  const stop = () => void starting.then(({ browser }) => browser.close()).catch(() => {});
  signal?.addEventListener('abort', stop, { once: true });
  const tried: TriedPage[] = [];
  try {
    const recorded = options.har
      ? await readRecordedHar(workspace, options.har)
      : await recordAll(workspace, pages, label, options);
    for (const [index, page] of recorded.entries()) {
      if (signal?.aborted) break;
      const place = { label, index, count: recorded.length };
      const result = await tryPage(
        { workspace, tools, ...(await starting) },
        { page, fixes, place },
        options,
      );
      if (!result) continue;
      tried.push(result);
      const document = trialDocument({ pages: [result] });
      workspace.trials.add(label, workspace.now(), document);
    }
  } finally {
    signal?.removeEventListener('abort', stop);
    await starting.then(({ browser }) => browser.close()).catch(() => {});
  }
  return { pages: tried, interrupted: signal?.aborted ?? false };
}

interface Replaying {
  readonly browser: Browser;
  readonly certificate: ThrowAwayCertificate;
}

/** Starts the browser that loads what was recorded, and the certificate that it alone trusts. */
async function startReplaying({ memory }: Pick<TrialOptions, 'memory'>): Promise<Replaying> {
  const certificate = await throwAwayCertificate();
  const browser = await launchBrowser(Reach.open(), { trustedKey: certificate.keyHash, memory });
  return { browser, certificate };
}

/** Records each page, on the line as it is. */
async function recordAll(
  workspace: Workspace,
  pages: readonly string[],
  label: string,
  options: TrialOptions,
): Promise<RecordedPage[]> {
  const { signal, onProgress = noProgress, onNotice } = options;
  const split = pages.map(splitCredentials);
  const given = split.flatMap(({ access }) => access ?? []);
  const open = await openStarts(
    split.map(({ address }) => address),
    options,
  );
  let browser: Browser | undefined;
  const stop = () => void browser?.close();
  signal?.addEventListener('abort', stop, { once: true });
  try {
    browser = await launchBrowser(open.reach, { onNotice, memory: options.memory });
    const conditions = conditionsOf(
      { ...options, network: unshaped },
      `Chromium ${browser.version()}`,
      false,
    );
    const recorded: RecordedPage[] = [];
    for (const [index, url] of open.urls.entries()) {
      if (signal?.aborted) break;
      onProgress({ stage: 'recordings', done: index, total: open.urls.length, doing: url });
      const plan = {
        ...{
          ...pageOf(url, open.reach),
          conditions,
          limits: { ...defaultColdLoadLimits, rest: 0 },
        },
        visitor: { ...options, accesses: [...(options.accesses ?? []), ...given] },
      };
      const name = open.urls.length === 1 ? label : `${label}-${index + 1}`;
      recorded.push(await recordPage(workspace, browser, plan, name, options.creator));
    }
    onProgress({ stage: 'recordings', done: recorded.length, total: open.urls.length, doing: '' });
    return recorded;
  } finally {
    signal?.removeEventListener('abort', stop);
    await browser?.close().catch(() => {});
    await open.close();
  }
}

/** `trial-` and the first number that no session has. */
function nextLabel({ sessions }: Workspace): string {
  const used = sessions.labels().map((label) => Number(/^trial-(\d+)-/.exec(label)?.[1] ?? 0));
  return `trial-${Math.max(0, ...used) + 1}`;
}
