import { readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';
import { describe, expect, it } from 'vitest';
import { Workspace } from '../../src/store/workspace.js';
import { temporaryFolder } from '../support/folder.js';

function open(folder = temporaryFolder()): Workspace {
  return Workspace.open(folder);
}

describe('a workspace that is opened', () => {
  it('refuses one that a newer version wrote, and leaves it as it is', () => {
    const folder = temporaryFolder();
    open(folder).close();
    const path = join(folder, 'workspace.sqlite');
    const database = new Database(path);
    database.pragma('user_version = 999');
    database.close();
    expect(() => open(folder)).toThrow(
      expect.objectContaining({
        code: 'WORKSPACE',
        hint: expect.stringContaining('update') as string,
      }),
    );
  });

  it('refuses a file that is no workspace', () => {
    const folder = temporaryFolder();
    writeFileSync(
      join(folder, 'workspace.sqlite'),
      'this is not a database at all, only text'.repeat(50),
    );
    expect(() => open(folder)).toThrow(expect.objectContaining({ code: 'WORKSPACE' }));
  });

  it('does not make one where one must be', () => {
    const folder = temporaryFolder();
    expect(() => Workspace.openExisting(folder)).toThrow(/no workspace/);
    expect(readdirSync(folder)).toEqual([]);
  });
});
