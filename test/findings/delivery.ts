import { expect } from 'vitest';
import type { ServedArchive } from '../../demo/archive/server.js';
import { run, runJson, twoViews } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';

/** What `explain` says of how a page is put together and sent. */
export interface PageDocument {
  readonly page: {
    readonly delivery: readonly {
      readonly id: string;
      readonly url: string;
      readonly message: string;
      readonly data: Readonly<Record<string, unknown>>;
    }[];
  };
}

/** The options by which the archive's hosts are found. */
export function hostOptions({ hosts }: ServedArchive): string[] {
  const mapped = Object.entries(hosts).flatMap(([host, at]) => ['--map-host', `${host}=${at}`]);
  return [...mapped, '--any-certificate'];
}

/** Surveys an archive from a start, in two views; its images are nobody's concern here. */
export async function surveyArchive(
  start: readonly string[],
  archive: ServedArchive,
  cwd: string,
): Promise<void> {
  const { status, stderr } = await run(
    ['survey', ...start, ...hostOptions(archive), ...twoViews, '--no-encode'],
    { cwd },
  );
  expect(stderr).not.toContain('ERROR');
  expect(status).toBe(0);
}

/** The findings on a page besides those on its images. */
export async function deliveryOf(
  page: string,
  cwd: string,
): Promise<PageDocument['page']['delivery']> {
  const document = await runJson<PageDocument>(['explain', page], { cwd });
  expect(schemaErrors('explain', document)).toEqual([]);
  return document.page.delivery;
}
