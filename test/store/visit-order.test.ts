import { expect, it } from 'vitest';
import { noBytes } from '../../src/core/load/request.js';
import { noSketch } from '../../src/core/survey/document-sketch.js';
import type { Resource } from '../../src/core/survey/resource.js';
import { defaultViews } from '../../src/core/visitors/view.js';
import type { PageRecord } from '../../src/store/page-writer.js';
import { Workspace } from '../../src/store/workspace.js';
import { freshPlace } from '../support/place.js';

const start = 'http://a.test/';

const resource = (url: string): Resource => ({
  ...{ url, type: 'script', status: 200, mediaType: 'text/javascript', protocol: 'h2' },
  ...{ headers: {}, transferBytes: 9, wireBytes: 8, bodyBytes: 8, contentHash: null },
  ...{ renderBlocking: false, thirdParty: false, initiator: 'parser', initiatedBy: null },
  ...{ redirects: [], cookieBytes: 0, times: 1 },
});

/** A page with one script of its own. */
const pageAt = (url: string): PageRecord => ({
  page: {
    ...{ url, finalUrl: url, status: 200, depth: url === start ? 0 : 1, visits: null },
    ...{ group: null, error: null, bytesByType: noBytes() },
  },
  visits: [
    {
      ...{ view: 'phone', placements: [], responses: [], uses: [], load: null, screen: null },
      resources: [resource(`${url}.js`)],
    },
  ],
  ...{ curves: [], shape: noSketch, document: '' },
});

it('is one for all that visits found, whatever order they were made in', () => {
  const workspace = Workspace.open(freshPlace());
  const plan = { given: [start], hosts: [start], scope: {} };
  const now = '2026-01-01T00:00:00.000Z';
  const head = workspace.surveys.begin('order', now, [start], defaultViews, plan);
  for (const path of ['c', 'a', '', 'b']) workspace.pages.add(head.id, pageAt(start + path));
  const { visits } = workspace.pages.read(head);
  expect(visits.map(({ page }) => new URL(page).pathname)).toEqual(['/', '/a', '/b', '/c']);
  const { list, ofVisit } = workspace.pages.resources(head.id, workspace.texts);
  const found = ofVisit.map((places) => places.map((at) => list[at]!.url));
  expect(found).toEqual(visits.map(({ page }) => [`${page}.js`]));
  workspace.close();
});
