import type { SurveysView, ThinnedView, WorkspaceCheck } from '../views/surveys.js';
import { mostName, plainText, shorten } from '../words/plain-text.js';
import { count, formatBytes } from '../words/units.js';
import { paletteFor, table } from './style.js';
import type { Screen } from './style.js';

/** The surveys of a workspace, one row each, and their size on disk. */
export function drawSurveys(
  { surveys, running, size, check, thinned }: SurveysView,
  screen: Screen,
): string {
  const { dim } = paletteFor(screen);
  // Of a database that is damaged nothing else is read.
  if (check && check.database.length > 0) return checkLines(check).join('\n');
  const disk = `on disk: ${formatBytes(size.database)} of measurements, ${formatBytes(size.bodies)} of images and encodes`;
  const more = [
    ...(check ? ['', ...checkLines(check)] : []),
    ...(thinned ? ['', ...thinnedLines(thinned)] : []),
  ];
  if (surveys.length === 0) return [`There is no survey yet; ${disk}`, ...more].join('\n');
  return [
    table(
      screen,
      [
        { title: 'survey' },
        { title: 'started (UTC)' },
        { title: 'state', spare: true },
        { title: 'pages', align: 'right' },
        { title: 'views', align: 'right', spare: true },
        { title: 'image files', align: 'right', spare: true },
        { title: 'bytes', align: 'right', spare: true },
        { title: 'from', spare: true, least: 24 },
      ],
      surveys.map((survey) => [
        plainText(survey.label, 40),
        survey.startedAt.slice(0, 16).replace('T', ' '),
        running.includes(survey.id) ? 'running' : stateOf(survey),
        survey.thinnedAt === null ? String(survey.pages) : '–',
        String(survey.views.length),
        String(survey.files),
        formatBytes(survey.bytes),
        shorten(survey.starts[0] ?? '', mostName),
      ]),
    ),
    '',
    dim(`${count(surveys.length, 'survey')}, ${disk}`),
    ...more,
  ].join('\n');
}

function stateOf({ finishedAt, thinnedAt }: SurveysView['surveys'][number]): string {
  if (thinnedAt !== null) return 'figures only';
  return finishedAt === null ? 'interrupted' : 'complete';
}

/** What was taken away, or would be. */
function thinnedLines({ surveys, needed, dryRun, freed, before, after }: ThinnedView): string[] {
  const kept = needed.map((label) => plainText(label, 40)).join(', ');
  const lines =
    needed.length > 0 ? [`A budget is set against ${kept}: it stays whole, whatever its age.`] : [];
  if (surveys.length === 0) return [...lines, 'There is nothing to thin out.'];
  const labels = surveys.map(({ label }) => plainText(label, 40)).join(', ');
  const total = ({ database, bodies }: SurveysView['size']) => database + bodies;
  return dryRun
    ? [
        ...lines,
        `Would be reduced to figures: ${labels}. That would free ${formatBytes(freed)} of images and encodes, and what the database has of them. Nothing was taken away (--dry-run).`,
      ]
    : [
        ...lines,
        `Reduced to figures: ${labels}. On disk: ${formatBytes(total(before))} before, ${formatBytes(total(after))} now.`,
      ];
}

/** What a check has found, and how to go on. */
function checkLines({ database, bodies, damaged, missing }: WorkspaceCheck): string[] {
  if (database.length > 0)
    return [
      'The database is damaged:',
      ...database.map((problem) => `  ${plainText(problem)}`),
      'Survey again into another --workspace. What can still be read of this one is not safe to rely on.',
    ];
  const sound = bodies - damaged - missing;
  const lines = [
    `The database is sound. ${sound} of ${count(bodies, 'body', 'bodies')} are as they were.`,
  ];
  if (damaged > 0)
    lines.push(
      `${count(damaged, 'body was', 'bodies were')} damaged and taken away: refit fetches or makes them again.`,
    );
  if (missing > 0)
    lines.push(
      `${count(missing, 'body is', 'bodies are')} not kept: refit fetches or makes what it needs of them.`,
    );
  return lines;
}
