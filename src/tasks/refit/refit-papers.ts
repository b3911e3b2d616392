import { withoutSecrets } from '../../core/address/secrets.js';
import { acceptedFormats } from '../../core/refit/plan/accepted-formats.js';
import { refitPapers } from '../../core/refit/refit-job.js';
import type { MadeJob } from '../../core/refit/refit-job.js';
import type { ProvedSnippets } from '../../core/refit/markup/snippet.js';
import type { DeliverySettings } from '../../core/refit/work/delivery.js';
import type { WorkItem } from '../../core/refit/work/work-item.js';
import type { PictureUse } from '../../core/survey/picture-use.js';
import { worklistCsv } from '../../output/csv/worklist.js';
import { jsonBytes, jsonText, wholeJsonText } from '../../output/json/json-text.js';
import { rewritesDocument } from '../../output/json/rewrites.js';
import { snippetsDocument } from '../../output/json/snippets.js';
import { worklistDocument } from '../../output/json/worklist.js';
import { snippetsMarkdown } from '../../output/markdown/snippets.js';
import { ticketsMarkdown } from '../../output/markdown/tickets.js';
import { worklistMarkdown } from '../../output/markdown/worklist.js';
import { apacheRules } from '../../output/server/apache.js';
import { apacheDelivery, headerList, nginxDelivery } from '../../output/server/delivery.js';
import { nginxRules } from '../../output/server/nginx.js';

export interface PaperInputs {
  readonly jobs: readonly MadeJob[];
  readonly worklist: readonly WorkItem[];
  readonly snippets: ProvedSnippets;
  readonly uses: readonly PictureUse[];
  /** What settings of the server can mend; `null` where there is nothing to set. */
  readonly delivery: DeliverySettings | null;
}

/** The papers of a survey's refit besides its review, by their paths. */
export function papersOf({
  jobs,
  worklist,
  snippets,
  uses,
  delivery,
}: PaperInputs): [string, string | Buffer][] {
  return [
    [refitPapers.worklistCsv, withoutSecrets(`${worklistCsv(worklist)}\r\n`)],
    [refitPapers.worklistMarkdown, withoutSecrets(`${worklistMarkdown(worklist)}\n`)],
    [refitPapers.worklistJson, jsonBytes(worklistDocument(worklist), jsonText)],
    [refitPapers.tickets, withoutSecrets(`${ticketsMarkdown(worklist)}\n`)],
    [refitPapers.snippets, `${snippetsMarkdown(snippets)}\n`],
    [refitPapers.snippetsJson, jsonBytes(snippetsDocument(snippets), wholeJsonText)],
    [refitPapers.rewrites, jsonBytes(rewritesDocument(jobs, uses), wholeJsonText)],
    ...serverRules(jobs),
    ...deliveryRules(delivery),
  ];
}

/** Rules for servers that choose the format, where there is a choice. */
function serverRules(jobs: readonly MadeJob[]): [string, string][] {
  const pairs = acceptedFormats(jobs);
  if (pairs.length === 0) return [];
  return [
    [refitPapers.nginx, nginxRules(pairs)],
    [refitPapers.apache, apacheRules(pairs)],
  ];
}

/** Settings for servers, and what to join, where findings ask for any. */
function deliveryRules(delivery: DeliverySettings | null): [string, string][] {
  if (delivery === null) return [];
  return [
    [refitPapers.nginxDelivery, nginxDelivery(delivery)],
    [refitPapers.apacheDelivery, apacheDelivery(delivery)],
    [refitPapers.headers, headerList(delivery)],
  ];
}
