import { describe, expect, it } from 'vitest';
import { defaultViews } from '../../src/core/visitors/view.js';
import { Workspace } from '../../src/store/workspace.js';
import { freshPlace } from '../support/place.js';

const plan = { given: ['http://a.test/'], hosts: ['http://a.test/'], scope: { pages: 5 } };

describe('many rows', () => {
  it('are kept in their order, with texts of any letters', () => {
    const workspace = Workspace.open(freshPlace());
    const { id } = workspace.surveys.begin(
      'many',
      '2026-01-01T00:00:00.000Z',
      [],
      defaultViews,
      plan,
    );
    const due = Array.from({ length: 4_100 }, (_, at) => ({
      url: `http://a.test/${at}`,
      depth: 1,
      visits: at,
    }));
    const odd = 'half a \uD83E kite, nothing\0, a whole \u{1FA81}, "quotes" and \\ud83e';
    workspace.pages.addFound(id, { due, skipped: [{ url: 'http://a.test/x', reason: odd }] });
    expect(workspace.pages.leftover(id).due).toEqual(due);
    expect(workspace.pages.skipped(id)).toEqual([
      { url: 'http://a.test/x', reason: odd.replace('\uD83E ', '\uFFFD ').replace('\0', '\uFFFD') },
    ]);
    workspace.close();
  });
});
