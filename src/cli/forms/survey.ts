import type { SurveyView } from '../../output/views/survey.js';
import type { SurveysView } from '../../output/views/surveys.js';
import { jsonForm } from './form.js';
import type { Forms } from './form.js';

/** The forms of a survey. */
export const surveyForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/survey.js')).drawSurvey,
  },
  json: jsonForm(async () => (await import('../../output/json/survey.js')).surveyDocument),
} satisfies Forms<SurveyView>;

/** The forms of the list of surveys. */
export const surveysForms = {
  text: {
    describe: 'For people',
    print: async () => (await import('../../output/terminal/surveys.js')).drawSurveys,
  },
  json: jsonForm(async () => (await import('../../output/json/surveys.js')).surveysDocument),
} satisfies Forms<SurveysView>;
