import { groupBy } from '../base/group-by.js';
import { summarise } from '../base/summary.js';
import { conditionsKey } from '../load/marked-session.js';
import type { MarkedSession } from '../load/marked-session.js';
import { markerNames, markerTitles } from '../load/markers.js';
import type { MarkerName } from '../load/markers.js';
import { requestTypes } from '../load/request.js';
import { changePoints } from './change-points.js';
import type { ChangePoint } from './change-points.js';
import type { FieldMeasurement } from './field.js';
import type { SurveyFigures } from './figures.js';

/** What the values of a series are told in. */
export type SeriesUnit = 'bytes' | 'requests' | 'findings' | 'ms' | 'score';

/** One measurement of a series. */
export interface SeriesPoint {
  /** ISO 8601, UTC. */
  readonly at: string;
  /** Label of the survey or session; empty for measurements of visitors. */
  readonly label: string;
  readonly value: number;
  /** Of loads: the least and the most of its runs. */
  readonly low: number | null;
  readonly high: number | null;
}

/** A step of a series, with the measurement that came first after it. */
export interface SeriesStep extends ChangePoint {
  readonly point: SeriesPoint;
  /** The measurement before. */
  readonly from: SeriesPoint;
  /** Whether the browser was another one from there on: the step may be its doing. */
  readonly browserChanged: boolean;
}

/** One number over time, the oldest measurement first. */
export interface Series {
  readonly key: string;
  readonly title: string;
  readonly unit: SeriesUnit;
  readonly source: 'survey' | 'clock' | 'field';
  /** Of markers: the page, or the page group of visitors. */
  readonly page: string | null;
  /** Of loads: the line and the view. */
  readonly conditions: string | null;
  readonly points: readonly SeriesPoint[];
  readonly steps: readonly SeriesStep[];
}

const perThousand = 1_000;

/** The numbers of surveys over time; of those in which there is anything to see. */
export function seriesOfSurveys(figures: readonly SurveyFigures[]): Series[] {
  const series = (
    key: string,
    title: string,
    unit: SeriesUnit,
    of: (one: SurveyFigures) => number,
  ) =>
    seriesOf(
      { key, title, unit, source: 'survey', page: null, conditions: null },
      figures.map((one) => ({
        ...{ at: one.survey.startedAt, label: one.survey.label, value: of(one) },
        ...{ low: null, high: null },
      })),
    );
  return [
    series('bytes', 'bytes of a visit', 'bytes', ({ sums }) => sums.bytes),
    series('waste', 'waste of a visit', 'bytes', ({ sums }) => sums.wasteBytes),
    ...requestTypes.map((type) =>
      series(`bytes.${type}`, `bytes: ${type}`, 'bytes', ({ sums }) => sums.bytesByType[type]),
    ),
    series(
      'bytes.third-party',
      'bytes: third parties',
      'bytes',
      ({ sums }) => sums.thirdPartyBytes,
    ),
    series(
      'requests',
      'requests of a visit',
      'requests',
      ({ sums }) => Math.round(sums.requests / (perThousand / 10)) / 10,
    ),
    series('findings', 'findings', 'findings', ({ findings }) =>
      Object.values(findings).reduce((sum, count) => sum + count, 0),
    ),
  ].filter(({ points }) => points.some(({ value }) => value > 0));
}

/** The markers of pages over time, for each page under each set of conditions. */
export function seriesOfSessions(
  sessions: readonly MarkedSession[],
  markers: readonly MarkerName[],
): Series[] {
  const alike = groupBy(sessions, conditionsKey);
  return [...alike.values()].flatMap((of) =>
    markers.flatMap((marker): Series[] => {
      const points: (SeriesPoint & { readonly browser: string })[] = of.flatMap((session) => {
        const counted = session.runs.filter(({ failure }) => failure === null);
        const summary = summarise(counted.map((run) => run.markers[marker]));
        if (!summary) return [];
        const { label, startedAt: at, conditions } = session;
        const { median: value, min: low, max: high } = summary;
        return { at, label, value, low, high, browser: conditions?.browser ?? '' };
      });
      const [{ page, conditions }] = of as [MarkedSession];
      // What is always nothing shows nothing.
      return points.every(({ value }) => value === 0)
        ? []
        : [
            seriesOf(
              {
                key: `clock.${marker}`,
                title: markerTitles[marker],
                unit: unitOf(marker),
                source: 'clock',
                page,
                conditions: conditions && `${conditions.network.name}, ${conditions.view.name}`,
              },
              points.toSorted(byTime),
              (step) => {
                const browserAt = (point: SeriesPoint) =>
                  points.find((one) => one.at === point.at)?.browser;
                return browserAt(step.from) !== browserAt(step.point);
              },
            ),
          ];
    }),
  );
}

/** What visitors measured over time, for each page or page group. */
export function seriesOfField(measurements: readonly FieldMeasurement[]): Series[] {
  const alike = groupBy(measurements, ({ page, group, marker }) =>
    JSON.stringify([page, group, markerNames.indexOf(marker)]),
  );
  return [...alike.values()].map((of) => {
    const [{ page, group, marker }] = of as [FieldMeasurement];
    return seriesOf(
      {
        key: `field.${marker}`,
        title: markerTitles[marker],
        unit: unitOf(marker),
        source: 'field',
        page: page ?? group,
        conditions: null,
      },
      of
        .map(({ date, value }) => ({ at: date, label: '', value, low: null, high: null }))
        .toSorted(byTime),
    );
  });
}

function unitOf(marker: MarkerName): SeriesUnit {
  return marker === 'layoutShift' ? 'score' : 'ms';
}

function byTime(a: SeriesPoint, b: SeriesPoint): number {
  return a.at < b.at ? -1 : Number(a.at > b.at);
}

function seriesOf(
  head: Omit<Series, 'points' | 'steps'>,
  points: readonly SeriesPoint[],
  hasNewBrowser: (step: { from: SeriesPoint; point: SeriesPoint }) => boolean = () => false,
): Series {
  const steps = changePoints(points.map(({ value }) => value)).map((step): SeriesStep => {
    const between = { from: points[step.at - 1]!, point: points[step.at]! };
    return { ...step, ...between, browserChanged: hasNewBrowser(between) };
  });
  return {
    ...head,
    points: points.map(({ at, label, value, low, high }) => ({ at, label, value, low, high })),
    steps,
  };
}
