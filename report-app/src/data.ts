import type { ReportFileDocument } from '../../src/output/json/report.js';

export type Report = ReportFileDocument;
export type ReportImage = Report['rank']['images'][number];
export type ReportRow = Report['rank']['rows'][number];
export type ReportPage = Report['pages'][number];
export type ReportView = ReportPage['views'][number];
export type Found = Report['found'][number];
export type Load = Report['sessions'][number];
export type RequestHeaders = Report['headers'][number][number];
export type LoadRequest = Load['requests'][number];
export type Compared = Report['comparisons'][number];
export type WorkItem = Report['worklist']['items'][number];

/** What the trials of `zealous-lynx.trial/1` have that is shown. */
export interface Trial extends Compared {
  readonly page: string;
  readonly fixes: readonly {
    readonly name: string;
    readonly title: string;
    readonly unit: string;
    readonly changed: number;
    readonly predicted: {
      readonly largestContentfulPaint: number | null;
      readonly load: number | null;
    } | null;
  }[];
}

/** One place that markup is for, as `zealous-lynx.snippets/1` has it. */
export interface Snippet {
  readonly language: string;
  readonly text: string;
  readonly places: readonly { readonly page: string; readonly selector: string }[];
}

/** Opens the data that lies in the file, compressed. */
export async function readReport(): Promise<Report> {
  const packed = document.getElementById('data-0');
  const bytes = Uint8Array.from(atob(packed?.textContent ?? ''), (sign) => sign.charCodeAt(0));
  const opened = new Blob([bytes]).stream().pipeThrough(new DecompressionStream('gzip'));
  return (await new Response(opened).json()) as Report;
}

/** Pictures in one block. */
const perBlock = 100;
const blocks = new Map<string, readonly string[]>();

/** The address of a picture of the file; `undefined` where it has none of that number. */
export function pictureAt(kind: string, index: number): string | undefined {
  const id = `${kind}-${Math.floor(index / perBlock)}`;
  const lines = blocks.get(id) ?? (document.getElementById(id)?.textContent ?? '').split('\n');
  blocks.set(id, lines);
  const data = lines[index % perBlock];
  return data ? `data:image/${formatOf(data)};base64,${data}` : undefined;
}

/** How files of each format begin, in base64. */
const beginnings = { '/9j/': 'jpeg', iVBO: 'png', UklG: 'webp', R0lG: 'gif' } as const;

function formatOf(data: string): string {
  return beginnings[data.slice(0, 4) as keyof typeof beginnings] ?? 'avif';
}

/** An address without the scheme and the host that it shares with the start of the survey. */
export function shortAddress({ rank }: Report, url: string): string {
  const start = rank.survey.starts[0];
  const origin = start && URL.canParse(start) ? new URL(start).origin : '';
  const short = origin !== '' && url.startsWith(`${origin}/`) ? url.slice(origin.length) : url;
  return shortened(short, 160);
}

/** What an image is called by its place in the list; a large survey has more of them than the report lists. */
export function imageName(report: Report, image: number): string {
  const listed = report.rank.images[image];
  return listed ? shortAddress(report, listed.url) : 'an image that is not listed';
}

/** Text of a page, not longer than is read: what is left out is in the middle. */
export function shortened(text: string, most: number): string {
  const plain = text.replace(/[\p{Cc}\p{Cf}\u2028\u2029]/gu, '\uFFFD');
  if (plain.length <= most) return plain;
  const tail = Math.ceil(most * 0.6);
  return `${plain.slice(0, most - tail - 1)}…${plain.slice(-tail)}`;
}

/** The snippets for an element, if a refit was handed over. */
export function snippetsFor({ snippets }: Report, selector: string, page: string): Snippet[] {
  const list = (snippets as { snippets?: readonly Snippet[] } | null)?.snippets ?? [];
  return list.filter(({ places }) =>
    places.some((place) => place.page === page && place.selector === selector),
  );
}
