import type { SurveyView } from '../../output/views/survey.js';
import type { SurveysView } from '../../output/views/surveys.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** How a survey can be had. */
export const surveyForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/survey.js')).drawSurvey,
  },
  json: jsonForm(async () => (await import('../../output/json/survey.js')).surveyDocument),
} satisfies Forms<SurveyView>;

/** How the list of surveys can be had. */
export const surveysForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/surveys.js')).drawSurveys,
  },
  json: jsonForm(async () => (await import('../../output/json/surveys.js')).surveysDocument),
} satisfies Forms<SurveysView>;
