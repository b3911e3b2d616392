import { bareName } from '../address/bare-name.js';
import { groupBy } from '../base/group-by.js';
import { matchInTurn } from '../base/matching.js';
import type { Match } from '../base/matching.js';
import { figureOf } from './figures.js';
import type { FigureMeasure, FileFigure, PageFigure, SurveyFigures } from './figures.js';

/**
 * Why a number moved: something came, or went; its content changed; it was sent otherwise (compressed or not, with other
 * headers); what is needed of it changed; it was asked for on more visits, or on fewer.
 */
export const moveReasons = ['new', 'gone', 'content', 'delivery', 'need', 'visits'] as const;
export type MoveReason = (typeof moveReasons)[number];

/** What moved, after less before; in the unit of the measure. */
export interface Move {
  /** An address, a page group, a kind of bytes, a domain or a reason. */
  readonly key: string;
  readonly before: number;
  readonly after: number;
  readonly change: number;
}

/** A file that moved, with each of its reasons and the part that is theirs; the parts add up to the change. */
export interface FileMove extends Move {
  readonly was: FileFigure | null;
  readonly is: FileFigure | null;
  readonly reasons: readonly { readonly reason: MoveReason; readonly change: number }[];
}

/** What lies behind the difference of two surveys. Every list adds up to the change exactly, the largest part first. */
export interface Movement {
  readonly measure: FigureMeasure;
  readonly before: SurveyFigures['survey'];
  readonly after: SurveyFigures['survey'];
  readonly total: Move;
  readonly files: readonly FileMove[];
  readonly pages: readonly Move[];
  readonly groups: readonly Move[];
  readonly types: readonly Move[];
  /** By the domain that sent it; the site's own is one row, with an empty key. */
  readonly parties: readonly Move[];
  readonly reasons: readonly Move[];
}

/** Sets the figures of two surveys against each other. */
export function movement(
  before: SurveyFigures,
  after: SurveyFigures,
  measure: FigureMeasure,
): Movement {
  const of = (one: FileFigure | PageFigure | null) => (one ? figureOf(one, measure) : 0);
  const files = matchInTurn(before.files, after.files, [
    same('address' as const, ({ url }) => url),
    same('content' as const, ({ contentHash }) => contentHash ?? ''),
    same('name' as const, ({ url, type }) => (type === 'image' ? bareName(url) : '')),
  ]).map((match) => fileMove(match, measure));
  const pages = matchInTurn(before.ofPages, after.ofPages, [
    { by: 'address', before: ({ url }: PageFigure) => url, after: ({ url }: PageFigure) => url },
  ]);
  const sum = (moves: readonly Move[], key = '') => ({
    key,
    ...difference(
      moves.reduce((all, move) => all + move.before, 0),
      moves.reduce((all, move) => all + move.after, 0),
    ),
  });
  const by = (keyOf: (file: FileFigure) => string) => {
    const halves = [
      ...before.files.map((file) => ({ key: keyOf(file), ...difference(of(file), 0) })),
      ...after.files.map((file) => ({ key: keyOf(file), ...difference(0, of(file)) })),
    ];
    return sorted([...groupBy(halves, ({ key }) => key)].map(([key, some]) => sum(some, key)));
  };
  const groupsOf = (some: readonly PageFigure[], isAfter: boolean) =>
    some.map((page) => ({
      key: page.group,
      ...(isAfter ? difference(0, of(page)) : difference(of(page), 0)),
    }));
  const groups = groupBy(
    [...groupsOf(before.ofPages, false), ...groupsOf(after.ofPages, true)],
    ({ key }) => key,
  );
  const reasons = groupBy(
    files.flatMap(({ reasons: of }) => of),
    ({ reason }) => reason,
  );
  return {
    ...{ measure, before: before.survey, after: after.survey },
    total: sum(files),
    files: sorted(files),
    pages: sorted(
      pages.map((match) => ({
        key: (match.after ?? match.before)!.url,
        ...difference(of(match.before), of(match.after)),
      })),
    ),
    groups: sorted([...groups].map(([key, some]) => sum(some, key))),
    types: by(({ type }) => type),
    parties: by(({ party }) => party ?? ''),
    reasons: sorted(
      [...reasons].map(([key, some]) => {
        const change = some.reduce((all, one) => all + one.change, 0);
        return { key, before: 0, after: change, change };
      }),
    ),
  };
}

function same<By>(by: By, keyOf: (file: FileFigure) => string) {
  return { by, before: keyOf, after: keyOf };
}

function difference(before: number, after: number) {
  return { before, after, change: after - before };
}

/** What moved most first; what did not move is left out. */
function sorted<Some extends Move>(moves: readonly Some[]): Some[] {
  return moves
    .filter(({ change }) => change !== 0)
    .sort((a, b) => Math.abs(b.change) - Math.abs(a.change) || (a.key < b.key ? -1 : 1));
}

function fileMove(
  { before: was, after: is }: Match<FileFigure, unknown>,
  measure: FigureMeasure,
): FileMove {
  const of = (one: FileFigure | null) => (one ? figureOf(one, measure) : 0);
  const key = (is ?? was)!.url;
  const moved = difference(of(was), of(is));
  const reasons = reasonsOf(was, is, measure, moved.change).filter(({ change }) => change !== 0);
  return { key, ...moved, was, is, reasons };
}

/** The change of a file, split: first what more or fewer visits would have made of it, then the rest. */
function reasonsOf(
  was: FileFigure | null,
  is: FileFigure | null,
  measure: FigureMeasure,
  change: number,
): { reason: MoveReason; change: number }[] {
  if (!was) return [{ reason: 'new', change }];
  if (!is) return [{ reason: 'gone', change }];
  if (measure === 'requests') return [{ reason: 'visits', change }];
  const growth = was.requests > 0 ? is.requests / was.requests - 1 : 0;
  const byVisits = Math.round(figureOf(was, measure) * growth);
  const rest =
    was.contentHash !== is.contentHash ? 'content' : measure === 'waste' ? 'need' : 'delivery';
  return [
    { reason: 'visits', change: byVisits },
    { reason: rest, change: change - byVisits },
  ];
}
