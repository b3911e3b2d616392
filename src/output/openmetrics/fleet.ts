import { Gauge, Registry } from 'prom-client';
import type { OpenMetricsContentType } from 'prom-client';
import type { FleetView } from '../views/fleet.js';

/** The state of a fleet in the text format of OpenMetrics 1.0. */
export async function fleetMetrics({ surveys, workers }: FleetView): Promise<string> {
  const registry = new Registry<OpenMetricsContentType>();
  registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
  const gauge = (name: string, help: string, label: 'survey' | 'worker') =>
    new Gauge({
      ...{ name: `zealous_lynx_fleet_${name}`, help },
      ...{ labelNames: [label], registers: [registry] },
    });
  const pages = gauge('survey_pages', 'pages that a survey has', 'survey');
  const failed = gauge('survey_failed_pages', 'pages of it that could not be loaded', 'survey');
  const found = gauge('survey_known_pages', 'pages that it will have, as far as known', 'survey');
  const rate = gauge('survey_pages_per_minute', 'pages of the last minute', 'survey');
  const led = gauge('survey_led', 'whether a program leads it', 'survey');
  for (const survey of surveys) {
    const of = { survey: survey.label };
    pages.set(of, survey.pages);
    failed.set(of, survey.failed);
    found.set(of, survey.total);
    rate.set(of, survey.pagesPerMinute);
    led.set(of, survey.isLed ? 1 : 0);
  }
  const tabs = gauge('worker_tabs', 'tasks that a worker takes at a time', 'worker');
  const busy = gauge('worker_tasks', 'tasks that it holds', 'worker');
  for (const { name, tabs: most, doing } of workers) {
    // Two of one name are counted together.
    tabs.inc({ worker: name }, most);
    busy.inc({ worker: name }, doing.length);
  }
  return registry.metrics();
}
