import { hostOf, isInDocument } from '../../core/address/address.js';
import type { ToldHeader } from '../../core/survey/image-file.js';
import type { SurveyHead, SurveyedPage } from '../../core/survey/survey.js';
import type { Workspace } from '../../store/workspace.js';

/** A file that an earlier survey was sent, and by what it can be known again. */
export interface KeptFile {
  readonly url: string;
  readonly isDocument: boolean;
  readonly isImage: boolean;
  readonly headers: Readonly<Partial<Record<ToldHeader, string>>>;
  /** SHA-256 of its body; `null` where that was not read. */
  readonly contentHash: string | null;
  /** The pages that were sent it. */
  readonly pages: ReadonlySet<string>;
}

interface Growing extends KeptFile {
  readonly pages: Set<string>;
}

/** The files of a survey's own hosts, each once. What third parties send is nothing of the site's. */
export function keptFiles(workspace: Workspace, head: SurveyHead): KeptFile[] {
  const { visits, responses } = workspace.pages.read(head);
  const { list, ofVisit } = workspace.pages.resources(head.id, workspace.texts);
  const pages = new Map(workspace.pages.list(head.id).map((page) => [page.url, page]));
  const files = new Map<string, Growing>();
  const add = (file: Omit<KeptFile, 'pages'>, page: string) => {
    const known = files.get(file.url) ?? { ...file, pages: new Set<string>() };
    known.pages.add(page);
    files.set(file.url, known);
  };
  ofVisit.forEach((places, visit) => {
    const { page } = visits[visit]!;
    for (const place of places) {
      const { url, type, headers, contentHash, thirdParty, status } = list[place]!;
      if (thirdParty || status < 200 || status >= 300) continue;
      const isDocument = type === 'html' && isAt(url, pages.get(page));
      add({ url, isDocument, isImage: false, headers, contentHash }, page);
    }
  });
  for (const { page, url, headers, contentHash, thirdParty, redirects } of responses) {
    if (thirdParty || contentHash === null || isInDocument(url) || hostOf(url) === '') continue;
    // What was asked for is what would be asked for again.
    const asked = redirects[0] ?? url;
    add({ url: asked, isDocument: false, isImage: true, headers, contentHash }, page);
  }
  return [...files.values()];
}

function isAt(url: string, page: SurveyedPage | undefined): boolean {
  return url === page?.finalUrl || url === page?.url;
}
