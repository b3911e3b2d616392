import { wholeNumbers } from '../base/whole-numbers.js';
import { record } from '../base/record.js';
import { requestTypes } from '../load/request.js';
import { RankedImage } from '../rank/ranked-image.js';
import type { SentRequest, SentVisits } from '../rank/sent-visits.js';
import type { SurveyedPage } from '../survey/survey.js';
import { wholePortions } from '../waste/portion.js';
import type { FigureSums, FileFigure, PageFigure, SurveyFigures } from './figures.js';

/** What figures are made of. */
export interface FiguredSurvey {
  readonly sent: SentVisits;
  readonly pages: readonly SurveyedPage[];
  /** How many findings of each kind there are, by id. */
  readonly findings: Readonly<Record<string, number>>;
  /** The registrable domain of an address. */
  readonly partyOf: (url: string) => string;
}

/** A file or a page while it is added up; in fractions of bytes. */
interface Growing {
  bytes: number;
  requests: number;
  wasteBytes: number;
}

interface GrowingFile extends Growing {
  readonly first: SentRequest;
  readonly firstPage: string;
  readonly pages: Set<string>;
}

const perThousand = 1_000;

/** Adds a survey up. */
export function surveyFigures({ sent, pages, findings, partyOf }: FiguredSurvey): SurveyFigures {
  const { ledger } = sent;
  const { visits, head } = ledger.facts;
  const files = new Map<string, GrowingFile>();
  const ofPages = new Map<string, Growing>(pages.map(({ url }) => [url, nothing()]));
  const ofFile = new Map<number, GrowingFile>();
  visits.forEach(({ page }, visit) => {
    const weight = ledger.weights[visit]!;
    if (!(weight > 0)) return;
    const pageSum = ofPages.get(page) ?? nothing();
    ofPages.set(page, pageSum);
    for (const request of sent.of(visit)) {
      // An image file is one thing wherever it is fetched from.
      const key = request.file >= 0 ? String(request.file) : request.url;
      const known = files.get(key);
      const file = known ?? {
        ...nothing(),
        ...{ first: request, firstPage: page, pages: new Set<string>() },
      };
      if (!known) files.set(key, file);
      if (request.file >= 0) ofFile.set(request.file, file);
      file.pages.add(page);
      for (const sum of [file, pageSum]) {
        sum.bytes += request.bytes * weight;
        sum.requests += request.times * weight * perThousand;
      }
    }
  });
  for (const [file, made] of embeddedFiles(ledger, ofFile)) {
    ofFile.set(file, made);
    files.set(String(file), made);
  }
  addWaste(ledger, ofFile, ofPages);
  const own = [...files.values()];
  // The total of every ranking.
  const { neededBytes, unknownBytes, wasteBytes } = wholePortions([ledger.sum(ledger.rows)]).total;
  const whole = wholeOf(own, { wasteBytes });
  const fileFigures = own.map(({ first, firstPage, pages: on }, at): FileFigure => {
    const { url, type, contentHash, bodyBytes, thirdParty, headers } = first;
    return {
      ...{ url, type, contentHash, bodyBytes, firstPage, pages: on.size },
      ...whole.rows[at]!,
      delivery: {
        encoding: headers['content-encoding'] ?? '',
        lifetime: (headers['cache-control'] ?? headers.expires ?? '').slice(0, 100),
      },
      party: thirdParty ? partyOf(url) : null,
    };
  });
  const groups = new Map(pages.map(({ url, group }) => [url, group ?? url]));
  const onPages = [...ofPages];
  const wholePages = wholeOf(
    onPages.map(([, sum]) => sum),
    whole.total,
  );
  return {
    survey: { id: head.id, label: head.label, startedAt: head.startedAt },
    pages: pages.length,
    failedPages: pages.filter(({ error }) => error !== null).length,
    views: head.views.map(({ name }) => name),
    sums: {
      ...whole.total,
      ...{ neededBytes, unknownBytes },
      ...sumsOf(fileFigures),
    },
    findings,
    files: fileFigures,
    ofPages: onPages.map(([url], at): PageFigure => ({
      ...{ url, group: groups.get(url) ?? url },
      ...wholePages.rows[at]!,
    })),
  };
}

function nothing(): Growing {
  return { bytes: 0, requests: 0, wasteBytes: 0 };
}

/** Images that stand in documents and style sheets: they waste bytes, and nothing is asked for. */
function embeddedFiles(
  ledger: SentVisits['ledger'],
  known: ReadonlyMap<number, unknown>,
): Map<number, GrowingFile> {
  const { visits, files } = ledger.facts;
  const made = new Map<number, GrowingFile>();
  for (let row = 0; row < ledger.length; row++) {
    const at = ledger.file[row]!;
    const visit = ledger.visit[row]!;
    if (known.has(at) || !(ledger.weights[visit]! > 0)) continue;
    const { page } = visits[visit]!;
    const file = made.get(at) ?? embeddedFile(ledger, at, page);
    made.set(at, file);
    file.pages.add(page);
  }
  return made;

  function embeddedFile(of: SentVisits['ledger'], at: number, firstPage: string): GrowingFile {
    const { contentHash, mediaType, bytes } = files[at]!;
    const { url } = new RankedImage(of, at);
    return {
      ...{ ...nothing(), firstPage, pages: new Set<string>() },
      first: {
        ...{ url, type: 'image', mediaType, contentHash, status: 0, headers: {} },
        ...{ bodyBytes: bytes, bytes: 0, times: 0, thirdParty: false, file: at },
      },
    };
  }
}

/** Adds what images waste to the files and to the pages. */
function addWaste(
  ledger: SentVisits['ledger'],
  ofFile: ReadonlyMap<number, Growing>,
  ofPages: ReadonlyMap<string, Growing>,
): void {
  const { visits } = ledger.facts;
  for (let row = 0; row < ledger.length; row++) {
    const visit = ledger.visit[row]!;
    const { waste } = ledger.verdicts[ledger.verdictIndex[row]!]!;
    const bytes = (waste?.wasteBytes ?? 0) * ledger.weights[visit]!;
    if (bytes === 0) continue;
    ofFile.get(ledger.file[row]!)!.wasteBytes += bytes;
    ofPages.get(visits[visit]!.page)!.wasteBytes += bytes;
  }
}

type Sums = Readonly<Growing>;

function wholeOf(
  growing: readonly Growing[],
  totals: Partial<Sums>,
): { rows: Sums[]; total: Sums } {
  const column = (name: keyof Growing) =>
    wholeNumbers(
      growing.map((one) => one[name]),
      totals[name],
    );
  const [bytes, requests, wasteBytes] = [column('bytes'), column('requests'), column('wasteBytes')];
  const sum = (values: readonly number[]) => values.reduce((all, one) => all + one, 0);
  return {
    rows: growing.map((_, at) => ({
      ...{ bytes: bytes[at]!, requests: requests[at]!, wasteBytes: wasteBytes[at]! },
    })),
    total: { bytes: sum(bytes), requests: sum(requests), wasteBytes: sum(wasteBytes) },
  };
}

function sumsOf(files: readonly FileFigure[]): Pick<FigureSums, 'bytesByType' | 'thirdPartyBytes'> {
  const bytes = (some: readonly FileFigure[]) => some.reduce((sum, one) => sum + one.bytes, 0);
  return {
    bytesByType: record(requestTypes, (type) => bytes(files.filter((file) => file.type === type))),
    thirdPartyBytes: bytes(files.filter(({ party }) => party !== null)),
  };
}
