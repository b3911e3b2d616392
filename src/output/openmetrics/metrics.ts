import { Gauge, Registry } from 'prom-client';
import type { OpenMetricsContentType } from 'prom-client';
import { summarise } from '../../core/base/summary.js';
import { markerNames } from '../../core/load/markers.js';
import { countedRuns } from '../../core/load/session.js';
import { requestTypes } from '../../core/load/request.js';
import type { RoundView } from '../views/round.js';
import { plainText } from '../words/plain-text.js';

/** The media type of what `metricsText` writes. */
export const metricsType = Registry.OPENMETRICS_CONTENT_TYPE;

/** The newest round in the text format of OpenMetrics 1.0: gauges in bytes, seconds and plain numbers. */
export async function metricsText(view: RoundView): Promise<string> {
  const registry = new Registry<OpenMetricsContentType>();
  registry.setContentType(metricsType);
  const site = view.hosts.join(',');
  const gauge = <Label extends string>(name: string, help: string, labels: readonly Label[]) => {
    const made = new Gauge({
      ...{ name: `zealous_lynx_${name}`, help, registers: [registry] },
      labelNames: ['site', ...labels],
    });
    return (value: number, of: Readonly<Record<Label, string>>) =>
      made.set({ site, ...of } as Record<'site' | Label, string>, value);
  };
  const { figures, outcome } = view;
  gauge(
    'up',
    'whether the site could be reached in the newest round',
    [],
  )(outcome === 'down' ? 0 : 1, {});
  gauge(
    'round_timestamp_seconds',
    'when the newest round began',
    [],
  )(Date.parse(view.startedAt) / 1000, {});
  gauge('alarms', 'what is wrong', [])(view.troubles.length, {});
  if (figures) {
    const { sums } = figures;
    gauge('pages', 'pages of the newest survey', [])(figures.pages, {});
    gauge('failed_pages', 'pages of it that could not be measured', [])(figures.failedPages, {});
    const bytes = gauge('visit_bytes', 'bytes on the wire in an average visit', ['type']);
    for (const type of requestTypes) bytes(sums.bytesByType[type], { type });
    gauge(
      'visit_third_party_bytes',
      'bytes of third parties in an average visit',
      [],
    )(sums.thirdPartyBytes, {});
    gauge(
      'visit_waste_bytes',
      'bytes of images that an average visit does not need',
      [],
    )(sums.wasteBytes, {});
    gauge('visit_requests', 'requests of an average visit', [])(sums.requests / 1_000, {});
    const findings = gauge('findings', 'findings of each kind', ['finding']);
    for (const [finding, count] of Object.entries(figures.findings)) findings(count, { finding });
  }
  addLoads(view, gauge);
  addBudgets(view, gauge);
  return registry.metrics();
}

type MakeGauge = <Label extends string>(
  name: string,
  help: string,
  labels: readonly Label[],
) => (value: number, of: Readonly<Record<Label, string>>) => void;

function addLoads({ sessions }: RoundView, gauge: MakeGauge): void {
  if (sessions.length === 0) return;
  const names = ['page', 'marker', 'network', 'view'] as const;
  const seconds = gauge('marker_seconds', 'median of a marker over cold loads', names);
  const shift = gauge('layout_shift', 'median of the layout shift score', names);
  for (const session of sessions) {
    const { page, conditions } = session;
    const runs = countedRuns(session);
    for (const marker of markerNames) {
      const median = summarise(runs.map(({ markers }) => markers[marker]))?.median;
      if (median === undefined) continue;
      const of = {
        ...{ page: plainText(page), marker, network: conditions?.network.name ?? '' },
        view: conditions?.view.name ?? '',
      };
      if (marker === 'layoutShift') shift(median, of);
      else seconds(median / 1000, of);
    }
  }
}

function addBudgets({ judgements }: RoundView, gauge: MakeGauge): void {
  if (judgements.length === 0) return;
  const names = ['budget', 'page', 'group', 'view', 'network'] as const;
  const value = gauge('budget_value', 'what was measured, in the unit of the budget', names);
  const allowed = gauge('budget_allowed', 'what is allowed, in the unit of the budget', names);
  const broken = gauge('budget_broken', 'whether it does not hold', names);
  for (const row of judgements) {
    const { page, group, view, network } = row.subject;
    const of = {
      ...{ budget: plainText(row.budget.name), page: plainText(page ?? '') },
      ...{ group: plainText(group ?? ''), view: plainText(view ?? ''), network: network ?? '' },
    };
    value(row.value, of);
    allowed(row.allowed, of);
    broken(row.verdict === 'broken' ? 1 : 0, of);
  }
}
