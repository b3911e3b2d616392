import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { contentHashOf } from '../../src/images/hash.js';
import { Workspace } from '../../src/store/workspace.js';
import { temporaryFolder } from '../support/folder.js';

describe('BodyStore', () => {
  it('keeps each body once, whole, and leaves no drafts', async () => {
    const folder = temporaryFolder();
    const { bodies } = Workspace.open(folder);
    const body = Buffer.from('a picture, for all it knows');
    const hash = contentHashOf(body);
    await Promise.all([bodies.keep(hash, body), bodies.keep(hash, body)]);
    expect((await bodies.read(hash)).equals(body)).toBe(true);
    expect(readdirSync(join(folder, 'bodies', hash.slice(0, 2)))).toEqual([hash]);
    expect(bodies.has('d'.repeat(64))).toBe(false);
  });
});
