import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';
import { describe, expect, it } from 'vitest';
import { noBytes } from '../../src/core/load/request.js';
import { defaultViews } from '../../src/core/visitors/view.js';
import { migrations, schemaVersion } from '../../src/store/schema.js';
import { placementColumns, responseColumns } from '../../src/core/survey/survey-tables.js';
import { sealFormat } from '../../src/store/sealed-surveys.js';
import { Workspace } from '../../src/store/workspace.js';
import { temporaryFolder } from '../support/folder.js';
import { plainFile as file } from '../support/image-file.js';

const now = '2026-01-01T00:00:00.000Z';

describe('the schema', () => {
  it('brings a workspace of the first version up to date, with all that it holds', () => {
    const folder = temporaryFolder();
    const database = new Database(join(folder, 'workspace.sqlite'));
    database.exec(migrations[0] as string);
    database.pragma('user_version = 1');
    const views = JSON.stringify(defaultViews.slice(0, 1));
    const bytes = JSON.stringify(noBytes());
    const page = 'http://a.test/';
    const details = JSON.stringify({ drawn: null, naturalDensity: 2, markup: null });
    database.exec(`
      INSERT INTO survey VALUES (1, 'old', '${now}', '${now}', '["${page}"]', '${views}', '{}');
      INSERT INTO due VALUES (1, '${page}', 0);
      INSERT INTO page VALUES (7, 1, '${page}', '${page}', 200, 0, NULL, NULL, '${bytes}');
      INSERT INTO image_file VALUES ('${file.contentHash}', 'image/png', 40, 30, 900, 1, NULL);
      INSERT INTO image_response VALUES
        (7, 'phone', '${page}x.png', '${file.contentHash}', 'image/png', 1100, 0);
      INSERT INTO placement VALUES (7, 'phone', 'img', '#x', '${page}x.png', '${file.contentHash}',
        20, 15, 'cover', 1, 1, 'lazy', 'on-scroll', '${details}');
      INSERT INTO slot_curve VALUES (7, 'img', '#x', '[{"from":320,"to":2560,"a":0,"b":20}]');
    `);
    database.close();

    const workspace = Workspace.open(folder);
    const facts = workspace.pages.read(workspace.surveys.find('old'));
    expect(facts.files).toEqual([file]);
    expect(facts.pages).toMatchObject([{ url: page, visits: null, group: null }]);
    expect([...facts.responses]).toMatchObject([
      { page, view: 'phone', contentHash: file.contentHash, status: 200, transferBytes: 1100 },
    ]);
    expect([...facts.placements]).toEqual([
      {
        page,
        view: 'phone',
        kind: 'img',
        selector: '#x',
        url: `${page}x.png`,
        contentHash: file.contentHash,
        slot: { width: 20, height: 15 },
        fit: 'cover',
        aboveFold: true,
        aside: false,
        largest: false,
        shown: true,
        loading: 'lazy',
        fetched: 'on-scroll',
        drawn: null,
        naturalDensity: 2,
        markup: null,
      },
    ]);
    expect(facts.placements.curveAt(0)).toEqual([{ from: 320, to: 2560, a: 0, b: 20 }]);
    expect(workspace.surveys.list()).toMatchObject([{ label: 'old', files: 1, bytes: 900 }]);
    workspace.close();
  });

  it('has the tables and columns that the manual tells, and no others', () => {
    const folder = temporaryFolder();
    Workspace.open(folder).close();
    const database = new Database(join(folder, 'workspace.sqlite'));
    const rows = database
      .prepare(
        `SELECT m.name AS name, c.name AS column FROM sqlite_master m JOIN pragma_table_info(m.name) c
         WHERE m.type = 'table' ORDER BY m.name, c.cid`,
      )
      .all() as { name: string; column: string }[];
    database.close();
    const found = rows.map(({ name, column }) => `${name}.${column}`);
    const manual = readFileSync(new URL('../../docs/workspace.md', import.meta.url), 'utf8');
    const told = [...manual.matchAll(/^### `(\w+)`\n([^#]*)/gm)].flatMap(([, table, text]) =>
      [...text!.matchAll(/^\| `(\w+)` \|/gm)].map(([, column]) => `${table}.${column}`),
    );
    expect(told.sort()).toEqual(found.sort());
    expect(/version of the schema, (\d+) at present/.exec(manual)?.[1]).toBe(String(schemaVersion));
    expect(/two columns above, (\d+) at present/.exec(manual)?.[1]).toBe(String(sealFormat));
  });

  it('has another number for sealed surveys whenever their columns change', () => {
    // Whoever adds a column raises the number: sealed surveys of earlier versions do not have it.
    expect([sealFormat, ...placementColumns, ...responseColumns]).toEqual([
      ...[5, 'visit', 'shape', 'url', 'alt', 'file', 'curve', 'element', 'path'],
      ...['visit', 'answer', 'file'],
    ]);
  });
});
