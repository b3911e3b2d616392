import { record } from '../core/base/record.js';
import type { ImageFile } from '../core/survey/image-file.js';
import { distinctUses } from '../core/survey/picture-use.js';
import type { PictureUse } from '../core/survey/picture-use.js';
import {
  PlacementTable,
  ResponseTable,
  placementColumns,
  responseColumns,
} from '../core/survey/survey-tables.js';
import type {
  PlacementColumns,
  PlacementLists,
  ResponseColumns,
  ResponseFacts,
} from '../core/survey/survey-tables.js';
import type { SurveyFacts, SurveyedVisit } from '../core/survey/survey.js';

/** What the columns of a part are places in, by the name of the column. */
type Lists = PlacementLists & { readonly answers: readonly ResponseFacts[] };

/** Some pages of a survey with all their visits, which follow one another. Files are places among those of the survey. */
export interface SurveyPart {
  readonly placed: PlacementColumns;
  readonly answered: ResponseColumns;
  readonly lists: PlacementLists;
  readonly answers: readonly ResponseFacts[];
  readonly visits: readonly SurveyedVisit[];
  readonly uses: readonly PictureUse[];
  /** The numbers that what is in the lists has in the survey: what is the same in two parts has the same. */
  readonly terms: Readonly<Record<keyof Lists, readonly number[]>>;
}

/** The tables of a survey, or of a part of one. */
export type SurveyTables = Pick<
  SurveyFacts,
  'files' | 'visits' | 'placements' | 'responses' | 'uses'
>;

/** The tables of a part. @param files those of the whole survey */
export function tablesOfPart(
  { placed, answered, lists, answers, visits, uses }: Omit<SurveyPart, 'terms'>,
  files: readonly ImageFile[],
): SurveyTables {
  const contents = files.map(({ contentHash }) => contentHash);
  return {
    files,
    visits,
    placements: new PlacementTable(placed, lists, visits, contents),
    responses: new ResponseTable(answered, answers, visits),
    uses,
  };
}

/** The tables of a whole survey. @param parts in their order, all of them */
export function tablesOfParts(
  parts: Iterable<SurveyPart>,
  files: readonly ImageFile[],
): SurveyTables {
  const [first, ...others] = parts;
  if (first && others.length === 0) return tablesOfPart(first, files);
  const all = first ? [first, ...others] : [];
  const shapes = joinLists(all, 'shapes');
  const addresses = joinLists(all, 'addresses');
  const alts = joinLists(all, 'alts');
  const curves = joinLists(all, 'curves');
  const elements = joinLists(all, 'elements');
  const paths = joinLists(all, 'paths');
  const answers = joinLists(all, 'answers');
  const visits: SurveyedVisit[] = [];
  const begins = all.map((part) => {
    const begin = visits.length;
    for (const visit of part.visits) visits.push(visit);
    return begin;
  });
  const visitOf = (part: number) => (visit: number) => begins[part]! + visit;
  const placesIn = {
    ...{ shape: shapes, url: addresses, alt: alts, curve: curves },
    ...{ element: elements, path: paths },
  };
  const same = () => (place: number) => place;
  const placed = record(placementColumns, (name) =>
    joinColumns(
      all.map((part) => part.placed[name]),
      name === 'visit' ? visitOf : name === 'file' ? same : placesIn[name].placeOf,
    ),
  );
  const answered = record(responseColumns, (name) =>
    joinColumns(
      all.map((part) => part.answered[name]),
      name === 'visit' ? visitOf : name === 'file' ? same : answers.placeOf,
    ),
  );
  const lists = {
    shapes: shapes.values,
    addresses: addresses.values,
    alts: alts.values,
    curves: curves.values,
    elements: elements.values,
    paths: paths.values,
  };
  const uses = distinctUses(all.flatMap((part) => part.uses));
  return tablesOfPart({ placed, answered, lists, answers: answers.values, visits, uses }, files);
}

/**
 * The rows of a part that have some files, and the placements that tell whether an element with a choice of files is in a
 * first screen.
 *
 * @param placeOf their places in a list of them alone, by those in the list of all files; −1 for others
 */
export function partWith(part: SurveyPart, placeOf: Int32Array): SurveyPart {
  const { placed, answered, lists } = part;
  const local = (file: number) => (file < 0 ? -1 : placeOf[file]!);
  const choosing = new Set<string>();
  placed.file.forEach((file, row) => {
    const { markup, selector } = lists.shapes[placed.shape[row]!]!;
    if (local(file) >= 0 && markup?.srcset) choosing.add(selector);
  });
  const telling = lists.shapes.map(
    ({ aboveFold, shown, markup, selector }) =>
      aboveFold && shown && Boolean(markup?.srcset) && choosing.has(selector),
  );
  const rows = Int32Array.from(placed.file.keys()).filter(
    (row) => local(placed.file[row]!) >= 0 || telling[placed.shape[row]!],
  );
  const answers = Int32Array.from(answered.file.keys()).filter(
    (row) => local(answered.file[row]!) >= 0,
  );
  return {
    ...part,
    placed: record(placementColumns, (name) =>
      rows.map((row) => (name === 'file' ? local(placed.file[row]!) : placed[name][row]!)),
    ),
    answered: record(responseColumns, (name) =>
      answers.map((row) => (name === 'file' ? local(answered.file[row]!) : answered[name][row]!)),
    ),
  };
}

/** Gives the place in the whole of each place in a part. */
type PlaceOf = (part: number) => (place: number) => number;

/** A list of all parts, each term once, in the order in which they are first seen. */
function joinLists<Name extends keyof Lists>(
  parts: readonly SurveyPart[],
  name: Name,
): { readonly values: Lists[Name][number][]; readonly placeOf: PlaceOf } {
  const values: Lists[Name][number][] = [];
  const known = new Map<number, number>();
  const places = parts.map((part) => {
    const list: readonly Lists[Name][number][] = { ...part.lists, answers: part.answers }[name];
    return Int32Array.from(part.terms[name], (term, at) => {
      const place = known.get(term);
      if (place !== undefined) return place;
      known.set(term, values.length);
      return values.push(list[at]!) - 1;
    });
  });
  return { values, placeOf: (part) => (place) => (place < 0 ? place : places[part]![place]!) };
}

function joinColumns(columns: readonly Int32Array[], placeOf: PlaceOf): Int32Array {
  const joined = new Int32Array(columns.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  columns.forEach((column, part) => {
    const place = placeOf(part);
    for (let row = 0; row < column.length; row++) joined[at++] = place(column[row]!);
  });
  return joined;
}
