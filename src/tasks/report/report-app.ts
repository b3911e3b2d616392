import { readFile } from 'node:fs/promises';
import type { ReportApp } from '../../output/html/report.js';

/** The program of reports, built along with this one. */
export async function reportApp(): Promise<ReportApp> {
  const [script, style] = await Promise.all(
    ['report.js', 'report.css'].map((name) =>
      readFile(new URL(`../report-app/${name}`, import.meta.url), 'utf8'),
    ),
  );
  return { script: script!, style: style! };
}
