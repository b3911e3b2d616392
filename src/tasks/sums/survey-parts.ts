import type { ImageFile, ImageResponse } from '../../core/survey/image-file.js';
import { namedGroups } from '../../core/survey/page-groups.js';
import type { NamedGroup } from '../../core/survey/page-groups.js';
import type { SurveyHead, SurveyedPage } from '../../core/survey/survey.js';
import type { SurveyedFacts } from '../../store/pages.js';
import type { Workspace } from '../../store/workspace.js';

/** A sealed survey that is read a part at a time: some of its pages with all their visits. */
export class SurveyParts {
  readonly head: SurveyHead;
  readonly files: readonly ImageFile[];
  /** All pages, in the groups that a person has named. */
  readonly pages: readonly SurveyedPage[];
  readonly count: number;
  readonly #workspace: Pick<Workspace, 'pages'>;
  readonly #byUrl: ReadonlyMap<string, SurveyedPage>;

  constructor(
    workspace: Pick<Workspace, 'pages'>,
    head: SurveyHead,
    groups: readonly NamedGroup[] = [],
  ) {
    this.#workspace = workspace;
    this.head = head;
    this.count = workspace.pages.parts(head);
    this.files = workspace.pages.files(head.id);
    this.pages = pagesIn(workspace, head, groups);
    this.#byUrl = new Map(this.pages.map((page) => [page.url, page]));
  }

  /** A part, from 0 on; with its own pages and visits, and the files of the whole survey. */
  read(number: number): SurveyedFacts {
    const tables = this.#workspace.pages.part(this.head.id, number, this.files);
    const urls = new Set(tables.visits.map(({ page }) => page));
    const pages = [...urls].flatMap((url) => this.#byUrl.get(url) ?? []);
    return { head: this.head, pages, ...tables };
  }

  *[Symbol.iterator](): Generator<SurveyedFacts> {
    for (let number = 0; number < this.count; number++) yield this.read(number);
  }

  *responses(): Generator<ImageResponse> {
    for (const { responses } of this) yield* responses;
  }
}

/** The pages of a survey, in the groups that a person has named. */
export function pagesIn(
  { pages }: Pick<Workspace, 'pages'>,
  { id }: SurveyHead,
  groups: readonly NamedGroup[] = [],
): SurveyedPage[] {
  const nameOf = namedGroups(groups);
  return pages.list(id).map((page) => ({ ...page, group: nameOf(page.url) ?? page.group }));
}
