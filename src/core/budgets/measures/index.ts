import { bytes } from './bytes.js';
import { finding } from './finding.js';
import { heaviestImage } from './heaviest-image.js';
import type { SurveyMeasure } from './measure.js';
import { newImage } from './new-image.js';
import { requests } from './requests.js';
import { sideOverNeed } from './side-over-need.js';
import { waste } from './waste.js';

/** The numbers of a survey that budgets can hold; a new one is a file, and a line here. */
export const surveyMeasures = {
  waste,
  bytes,
  requests,
  heaviestImage,
  newImage,
  sideOverNeed,
  finding,
} as const satisfies Readonly<Record<string, SurveyMeasure>>;

export type SurveyMeasureName = keyof typeof surveyMeasures;
