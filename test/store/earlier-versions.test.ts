import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import Database from 'libsql';
import { describe, expect, it } from 'vitest';
import { slotWidthAt } from '../../src/core/slots/slot-curve.js';
import { schemaVersion } from '../../src/store/schema.js';
import { sealFormat } from '../../src/store/sealed-surveys.js';
import { Workspace } from '../../src/store/workspace.js';
import { temporaryFolder } from '../support/folder.js';

/**
 * Workspaces that each earlier version wrote itself, of one site of two pages: a picture at half the width of the
 * window, offered in two widths, a background, and the picture again at 120 px.
 */
const versions = Array.from({ length: schemaVersion - 1 }, (_, at) => at + 1);

function unpacked(version: number): string {
  const folder = temporaryFolder();
  const fixture = new URL(`../fixtures/workspace-${version}.sqlite.gz`, import.meta.url);
  writeFileSync(join(folder, 'workspace.sqlite'), gunzipSync(readFileSync(fixture)));
  return folder;
}

/** What a database says to a question with one answer. */
function ask(folder: string, sql: string): unknown {
  const database = new Database(join(folder, 'workspace.sqlite'));
  const row = database.prepare(sql).get() as Record<string, unknown>;
  database.close();
  return Object.values(row)[0];
}

describe.each(versions)('a workspace of version %i', (version) => {
  it('is what that version wrote', () => {
    expect(ask(unpacked(version), 'SELECT user_version FROM pragma_user_version')).toBe(version);
  });

  it('is read whole', () => {
    const folder = unpacked(version);
    const workspace = Workspace.open(folder);
    const head = workspace.surveys.find('kites');
    expect(head.finishedAt).not.toBeNull();
    const facts = workspace.pages.read(head);
    const paths = facts.pages.map(({ url, status }) => [new URL(url).pathname, status]);
    expect(paths).toEqual([
      ['/', 200],
      ['/two/', 200],
    ]);
    const kinds = new Set(facts.files.map(({ mediaType }) => mediaType));
    expect(kinds).toEqual(new Set(['image/jpeg', 'image/svg+xml']));
    const placements = [...facts.placements];
    const views = new Set(head.views.map(({ name }) => name));
    expect(new Set(placements.map(({ view }) => view))).toEqual(views);
    const laptop = placements.filter(({ view }) => view === 'laptop');
    expect(laptop.map(({ kind, slot: { width } }) => [kind, width])).toEqual(
      expect.arrayContaining([
        ['img', 683],
        ['background', 80],
        ['img', 120],
      ]),
    );
    const large = laptop.find(({ slot }) => slot.width === 683)!;
    expect(large.markup).toMatchObject({
      alt: 'Kites over the bay',
      srcset: '/kites.jpg 400w, /kites-800.jpg 800w',
      sizes: '50vw',
    });
    expect(large).toMatchObject({ aboveFold: true, shown: true, loading: 'eager' });
    const small = laptop.find(({ slot }) => slot.width === 120)!;
    expect(small.markup?.alt).toBe('');
    expect(small.loading).toBe('lazy');
    const row = placements.indexOf(placements.find(({ selector }) => selector === large.selector)!);
    expect(slotWidthAt(facts.placements.curveAt(row)!, 1_000)).toBe(500);
    const responses = [...facts.responses].filter(({ view }) => view === 'laptop');
    expect(responses.length).toBeGreaterThanOrEqual(3);
    for (const response of responses) {
      expect(response.status).toBe(200);
      expect(response.transferBytes).toBeGreaterThan(0);
      expect(response.initiator).not.toBe('');
    }
    const { list, texts } = workspace.pages.resources(head.id, workspace.texts);
    // Since version 7 what is no image is told, too; since version 8 texts belong to surveys.
    expect(list.length > 0).toBe(version >= 7);
    for (const { contentHash } of list) expect(texts.has(contentHash!)).toBe(true);
    const [session] = workspace.sessions.find('loads');
    expect(session!.runs).toHaveLength(1);
    expect(session!.runs[0]!.requests.length).toBeGreaterThanOrEqual(2);
    expect(session!.runs[0]!.markers.load).toBeGreaterThan(0);
    workspace.close();
    expect(ask(folder, 'SELECT user_version FROM pragma_user_version')).toBe(schemaVersion);
  });

  it('is sealed in the format of this version once it was read, and reads the same from the seal', () => {
    const folder = unpacked(version);
    const read = () => {
      const workspace = Workspace.open(folder);
      const facts = workspace.pages.read(workspace.surveys.find('kites'));
      workspace.close();
      return { ...facts, placements: [...facts.placements], responses: [...facts.responses] };
    };
    const first = read();
    expect(ask(folder, 'SELECT format FROM sealed')).toBe(sealFormat);
    expect(read()).toEqual(first);
  });
});

describe('a seal of another format', () => {
  it('is not believed, and made again', () => {
    const folder = unpacked(schemaVersion - 1);
    Workspace.open(folder).close();
    const database = new Database(join(folder, 'workspace.sqlite'));
    database.exec("UPDATE sealed SET lists = '{}', format = 1000");
    database.close();
    const workspace = Workspace.open(folder);
    expect(workspace.pages.read(workspace.surveys.find('kites')).files.length).toBeGreaterThan(0);
    workspace.close();
    expect(ask(folder, 'SELECT format FROM sealed')).toBe(sealFormat);
  });
});
