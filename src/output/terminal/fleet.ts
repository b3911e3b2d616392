import type { FleetSurveyView, FleetView, FleetWorkerView } from '../views/fleet.js';
import { plainText, shorten } from '../words/plain-text.js';
import { count } from '../words/units.js';
import { table } from './style.js';
import type { Screen } from './style.js';

/** The surveys that are worked on, and the workers with what they hold. */
export function drawFleet({ surveys, workers }: FleetView, screen: Screen): string {
  const parts = [
    surveys.length === 0
      ? 'No survey is waiting for workers.'
      : table(
          screen,
          [
            { title: 'survey' },
            { title: 'state', spare: true },
            { title: 'pages', align: 'right' },
            { title: 'failed', align: 'right', spare: true },
            { title: 'pages/minute', align: 'right' },
            { title: 'time left', align: 'right' },
          ],
          surveys.map((survey) => [
            plainText(survey.label, 40),
            survey.isLed ? `since ${inMinutes(survey.minutes)}` : 'waits for a worker',
            `${survey.pages} of ${survey.total}`,
            String(survey.failed),
            String(survey.pagesPerMinute),
            leftOf(survey),
          ]),
        ),
    '',
    workers.length === 0
      ? 'There is no worker: start zealous-lynx worker on any machine.'
      : table(
          screen,
          [
            { title: 'worker' },
            { title: 'process', align: 'right', spare: true },
            { title: 'holds', align: 'right' },
            { title: 'at' },
          ],
          workers.map((worker) => [
            plainText(worker.name, 30),
            `${worker.pid} on ${plainText(worker.host, 20)}`,
            `${worker.doing.length} of ${worker.tabs}`,
            doingOf(worker, screen),
          ]),
        ),
    ...otherVersions(workers),
  ];
  return parts.join('\n');
}

function leftOf({ minutesLeft, pages, total, mayGrow }: FleetSurveyView): string {
  if (pages >= total) return 'encoding';
  if (minutesLeft === null) return '–';
  return `${mayGrow ? 'at least ' : ''}${inMinutes(minutesLeft)}`;
}

function inMinutes(minutes: number): string {
  if (minutes < 1) return `${Math.round(minutes * 60)} s`;
  return minutes < 120 ? `${Math.round(minutes)} min` : `${Math.round(minutes / 60)} h`;
}

function doingOf({ doing }: FleetWorkerView, screen: Screen): string {
  const [first] = doing;
  if (first === undefined) return 'nothing';
  const rest = doing.length === 1 ? '' : ` and ${doing.length - 1} more`;
  return shorten(plainText(first), Math.max(20, screen.width - 60)) + rest;
}

/** Workers that do not measure alike cannot share a survey. */
function otherVersions(workers: readonly FleetWorkerView[]): string[] {
  const kinds = new Set(workers.map(({ measures }) => measures));
  if (kinds.size < 2) return [];
  const of = [...kinds].map((kind) => {
    const alike = workers.filter(({ measures }) => measures === kind).length;
    return `${count(alike, 'worker')} with ${plainText(kind)}`;
  });
  return ['', `They do not measure alike, and share no survey: ${of.join('; ')}`];
}
