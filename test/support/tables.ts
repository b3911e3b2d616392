import type { ImageFile, ImageResponse } from '../../src/core/survey/image-file.js';
import type { Placement } from '../../src/core/slots/placement.js';
import type { ElementMarkup } from '../../src/core/slots/element-markup.js';
import type { ElementPath } from '../../src/core/slots/element-path.js';
import type { CurvePiece } from '../../src/core/slots/slot-curve.js';
import {
  responseColumns,
  ResponseTable,
  Dictionary,
  placementColumns,
  PlacementTable,
} from '../../src/core/survey/survey-tables.js';
import type { ResponseFacts, PlacementShape } from '../../src/core/survey/survey-tables.js';
import type { SurveyFacts, SurveyedVisit } from '../../src/core/survey/survey.js';

type Tables = Pick<SurveyFacts, 'visits' | 'placements' | 'responses' | 'uses'>;

/** Placements and answers as the tables of a survey. */
export function tablesOf(
  files: readonly Pick<ImageFile, 'contentHash'>[],
  placements: readonly Placement[],
  responses: readonly ImageResponse[],
  curveOf: (placement: Placement) => readonly CurvePiece[] | null = () => null,
  elementOf: (placement: Placement) => ElementMarkup | null = () => null,
): Tables {
  const hashes = files.map(({ contentHash }) => contentHash);
  const visitKeys = new Set([...placements, ...responses].map((one) => `${one.page} ${one.view}`));
  const visits = [...visitKeys].map((key): SurveyedVisit => {
    const [page = '', view = ''] = key.split(' ');
    return { page, view, measured: true };
  });
  const visitOf = new Map([...visitKeys].map((key, at) => [key, at]));
  const placeIn = ({ page, view }: { page: string; view: string }) =>
    visitOf.get(`${page} ${view}`)!;
  const inOrder = <One extends { page: string; view: string }>(all: readonly One[]) =>
    all.toSorted((a, b) => placeIn(a) - placeIn(b));
  const shapes = new Dictionary((text: string) => JSON.parse(text) as PlacementShape);
  const texts = new Dictionary((text: string) => text);
  const curves = new Dictionary((curve: readonly CurvePiece[]) => curve);
  const elements = new Dictionary((text: string) => JSON.parse(text) as ElementMarkup);
  const paths = new Dictionary((text: string) => JSON.parse(text) as ElementPath);
  const answers = new Dictionary((text: string) => JSON.parse(text) as ResponseFacts);
  const placed = inOrder(placements).map((placement) => {
    const { page, view, url, contentHash, ...shape } = placement;
    const alt = shape.markup?.alt ?? null;
    const swept = curveOf(placement);
    const element = elementOf(placement);
    return {
      visit: placeIn(placement),
      shape: shapes.indexOf(JSON.stringify(shape)),
      url: texts.indexOf(url),
      alt: alt === null ? -1 : texts.indexOf(alt),
      file: hashes.indexOf(contentHash ?? ''),
      curve: swept ? curves.indexOf(swept) : -1,
      element: element ? elements.indexOf(JSON.stringify(element)) : -1,
      path: paths.indexOf(JSON.stringify(pathOf(placement.selector))),
    };
  });
  const answered = inOrder(responses).map((response) => {
    const { page, view, ...answer } = response;
    const place = answers.indexOf(JSON.stringify(answer));
    const file = hashes.indexOf(answer.contentHash ?? '');
    return { visit: placeIn(response), answer: place, file };
  });
  const lists = {
    shapes: shapes.values,
    addresses: texts.values,
    alts: texts.values,
    curves: curves.values,
    elements: elements.values,
    paths: paths.values,
  };
  return {
    visits,
    placements: new PlacementTable(columnsOf(placementColumns, placed), lists, visits, hashes),
    responses: new ResponseTable(columnsOf(responseColumns, answered), answers.values, visits),
    uses: [],
  };
}

/** The elements that a selector names. */
function pathOf(selector: string): ElementPath {
  return selector.split(' > ').map((step) => [step.replace(/:.*/, ''), '', ''] as const);
}

function columnsOf<Name extends string>(
  names: readonly Name[],
  rows: readonly Readonly<Record<Name, number>>[],
): Record<Name, Int32Array> {
  const entries = names.map((name) => [name, Int32Array.from(rows, (row) => row[name])]);
  return Object.fromEntries(entries) as Record<Name, Int32Array>;
}
