import { gunzipSync } from 'node:zlib';
import { createHash } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { defaultPolicy } from '../../../src/core/policy/policy.js';
import { fixOf } from '../../../src/core/refit/work/fix.js';
import { findingRows } from '../../../src/core/rank/finding-rows.js';
import { rowsOf } from '../../../src/core/rank/rank-view.js';
import { PagePlans } from '../../../src/core/report/page-plans.js';
import { reportHtml } from '../../../src/output/html/report.js';
import { reportDocument } from '../../../src/output/json/report.js';
import type { ReportView } from '../../../src/output/views/report.js';
import { rankViewOf } from '../../support/ranked.js';
import { schemaErrors } from '../../support/schemas.js';
import { plainSketch } from '../../support/survey-facts.js';

const asJson = (document: unknown): unknown =>
  JSON.parse(
    JSON.stringify(document).replaceAll(
      /"hash-(\d)"/g,
      (_, digit) => `"${'a'.repeat(63)}${digit}"`,
    ),
  );

function viewOf(): ReportView {
  const ranking = rankViewOf(
    [plainSketch, { ...plainSketch, bytes: 50_000, best: 9_000, pages: [1] }],
    { top: Infinity },
  );
  const { result } = ranking;
  const query = { by: 'page', sort: 'waste', top: Infinity, filter: {} } as const;
  const plans = new PagePlans(result.ledger);
  return {
    program: { name: 'zealous-lynx', version: '1.2.3' },
    createdAt: '2026-11-27T00:00:00.000Z',
    ranking: { ...ranking, imageLimit: 100, placementLimit: 1 },
    byPage: rowsOf(result, { ...query, policy: defaultPolicy }).rows,
    findings: findingRows(ranking.images, []),
    ...{ site: [], muted: [], sessions: [], comparisons: [], trials: [] },
    plans: result.ledger.facts.visits.flatMap(
      ({ page, view }) =>
        plans.of({
          ...{ page, view, width: 400, height: 900 },
          // Of the second page's two images one is not shown.
          boxes: page.endsWith('1') ? [1, 2, 30, 40, 0, 0, 0, 0] : [5, 6, 70, 80],
        }) ?? [],
    ),
    fixOf: (image) => fixOf(image, 5),
    work: { items: [], snippets: null },
    plansLeftOut: 0,
  };
}

describe('the document of a report', () => {
  it('has the documents that commands print, by their schemas', () => {
    const { rank, placementsLeftOut, findings } = reportDocument(viewOf());
    expect(schemaErrors('rank', asJson(rank))).toEqual([]);
    expect(schemaErrors('findings', asJson(findings))).toEqual([]);
    expect(rank.images.map(({ placements }) => placements.length)).toEqual([1, 1]);
    expect(placementsLeftOut).toEqual([1, 3]);
  });

  it('lists only so many images, and counts the others wherever they are', () => {
    const view = viewOf();
    const { rank, families, fixes, pages } = reportDocument({
      ...view,
      ranking: { ...view.ranking, imageLimit: 1 },
    });
    expect([rank.images.length, rank.imagesLeftOut, fixes.length]).toEqual([1, 1, 1]);
    expect(families.flatMap(({ images }) => images).every((image) => image === 0)).toBe(true);
    const files = families.map(({ images }) => images.length);
    expect(files.reduce((sum, one) => sum + one, 0)).toBeLessThan(
      rank.rows.reduce((sum, row) => sum + row.files, 0),
    );
    // What stands in a page and is not listed keeps its box.
    const boxes = pages.flatMap(({ views }) => views.map((one) => one.boxes[0]!));
    expect(boxes).toHaveLength(4);
    expect(boxes).toContain(-1);
    expect(rank.perVisit).toEqual(reportDocument(view).rank.perVisit);
  });

  it('joins rows, images and pages by their places', () => {
    const { rank, families, fixes, pages, curve, screens } = reportDocument(viewOf());
    expect(families.map(({ images }) => images.length)).toEqual(
      rank.rows.map(({ files }) => files),
    );
    expect(fixes.length).toBe(rank.images.length);
    const wasted = rank.rows.reduce((sum, { perVisit }) => sum + perVisit.wasteBytes, 0);
    expect(curve.at(-1)).toBe(wasted);
    expect(screens).toHaveLength(4);
    for (const { place } of families) expect(pages[place!.page]!.url).toMatch(/^http:\/\/a\.test/);
    for (const { views } of pages)
      for (const { boxes } of views) {
        expect(boxes.length).toBe(6);
        expect(rank.images[boxes[0]!]).toBeDefined();
      }
    expect(pages.map(({ views }) => views.map(({ view }) => view))).toEqual([
      ['phone', 'laptop'],
      ['phone', 'laptop'],
    ]);
  });

  it('tells in sentences what its numbers say', () => {
    const { sentences, rank } = reportDocument(viewOf());
    expect(sentences[0]).toMatch(/^An average visit to a\.test is sent .* of images and needs /);
    expect(sentences[0]).toContain(
      `${((rank.perVisit.wasteBytes / rank.perVisit.sentBytes) * 100).toFixed(1)} %`,
    );
    expect(sentences[1]).toMatch(
      /^(?:The first fix alone wins|\d+ of \d+ fixes win) four fifths of it/,
    );
  });

  it('leaves plans out that belong to other placements', () => {
    const { result } = rankViewOf([plainSketch]);
    const plans = new PagePlans(result.ledger);
    const screen = { view: 'phone', width: 1, height: 1, boxes: [1, 1, 1, 1, 2, 2, 2, 2] };
    expect(plans.of({ ...screen, page: 'http://a.test/0' })).toBeUndefined();
    expect(plans.of({ ...screen, page: 'http://elsewhere.test/' })).toBeUndefined();
  });
});

describe('the file of a report', () => {
  const app = { script: 'run()', style: 'b{}' };
  const html = reportHtml('<Bay>', { told: '</script>' }, { thumbnails: ['AAA', '', 'BBB'] }, app);

  it('allows its own script and style, and nothing else', () => {
    const hash = (text: string) => createHash('sha256').update(text).digest('base64');
    expect(html).toContain(
      `content="default-src 'none'; script-src 'sha256-${hash(app.script)}'; style-src 'sha256-${hash(app.style)}'; img-src data:; base-uri 'none'; form-action 'none'"`,
    );
    expect(html).toContain('<title>&lt;Bay&gt;</title>');
  });

  it('has its data and pictures in blocks that end nowhere else', () => {
    const [, data] = /id="data-0">([^<]*)</.exec(html)!;
    expect(JSON.parse(gunzipSync(Buffer.from(data!, 'base64')).toString())).toEqual({
      told: '</script>',
    });
    expect(html).toContain('id="thumbnails-0">AAA\n\nBBB<');
  });
});
