import type { ImageFile, ImageResponse } from '../../src/core/image-file.js';
import type { Placement } from '../../src/core/placement.js';
import {
  AnswerTable,
  ColumnBuilder,
  Dictionary,
  PlacementTable,
} from '../../src/core/survey-tables.js';
import type { AnswerFacts, PlacementShape } from '../../src/core/survey-tables.js';
import type { SurveyFacts, SurveyedVisit } from '../../src/core/survey.js';

type Tables = Pick<SurveyFacts, 'visits' | 'placements' | 'responses'>;

/** Placements and answers as the tables of a survey. */
export function tablesOf(
  files: readonly Pick<ImageFile, 'contentHash'>[],
  placements: readonly Placement[],
  responses: readonly ImageResponse[],
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
  const answers = new Dictionary((text: string) => JSON.parse(text) as AnswerFacts);
  const placed = new ColumnBuilder(['visit', 'shape', 'url', 'alt', 'file']);
  for (const placement of inOrder(placements)) {
    const { page: _, view: __, url, contentHash, ...shape } = placement;
    const alt = shape.markup?.alt ?? null;
    placed.push(
      placeIn(placement),
      shapes.placeOf(JSON.stringify(shape)),
      texts.placeOf(url),
      alt === null ? -1 : texts.placeOf(alt),
      hashes.indexOf(contentHash ?? ''),
    );
  }
  const answered = new ColumnBuilder(['visit', 'answer', 'file']);
  for (const response of inOrder(responses)) {
    const { page: _, view: __, ...answer } = response;
    const place = answers.placeOf(JSON.stringify(answer));
    answered.push(placeIn(response), place, hashes.indexOf(answer.contentHash ?? ''));
  }
  return {
    visits,
    placements: new PlacementTable(placed.done(), shapes.values, texts.values, visits, hashes),
    responses: new AnswerTable(answered.done(), answers.values, visits),
  };
}
