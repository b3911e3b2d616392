import type { Portion } from '../../core/waste/portion.js';
import type {
  ComparedImage,
  ComparedSurveyPage,
  ComparedSurveys,
  SurveySide,
} from '../../core/rank/survey-comparison.js';
import type { CompareSurveysView } from '../views/compare-surveys.js';
import { surveyHeadDocument } from './survey-head.js';

/** Two surveys as the document `zealous-lynx.compare-surveys/1`. */
export function compareSurveysDocument({ compared }: CompareSurveysView) {
  const { before, after, comparison } = compared;
  return {
    format: 'zealous-lynx.compare-surveys/1',
    before: sideDocument(before, comparison.before),
    after: sideDocument(after, comparison.after),
    images: comparison.images.map(changeDocument),
    pages: comparison.pages.map(changeDocument),
  };
}

function sideDocument(head: ComparedSurveys['before'], { pages, files, perVisit }: SurveySide) {
  return { survey: surveyHeadDocument(head, pages), files, perVisit: portionDocument(perVisit) };
}

interface Change<By> {
  readonly before: ComparedImage | ComparedSurveyPage | null;
  readonly after: ComparedImage | ComparedSurveyPage | null;
  readonly by: By;
  readonly bytes: number;
  readonly perVisit: number;
}

function changeDocument<By>({ before, after, by, bytes, perVisit }: Change<By>) {
  const item = (one: ComparedImage | ComparedSurveyPage | null) =>
    one && { ...one, perVisit: portionDocument(one.perVisit) };
  return { before: item(before), after: item(after), by, bytes, perVisit: Math.round(perVisit) };
}

function portionDocument({ sentBytes, neededBytes, wasteBytes, unknownBytes }: Portion) {
  return {
    sentBytes: Math.round(sentBytes),
    neededBytes: Math.round(neededBytes),
    wasteBytes: Math.round(wasteBytes),
    unknownBytes: Math.round(unknownBytes),
  };
}
