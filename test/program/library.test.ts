import { execFile } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { scene } from '../support/pictures.js';

const library = fileURLToPath(new URL('../../dist/src/index.js', import.meta.url));

describe('the library', () => {
  it('refits pictures in a program of its own, by what it says of itself', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'camera/kite.jpg': await scene(900, 600).jpeg({ quality: 95 }).toBuffer(),
      'own.mjs': `
        import { Workspace, defaultPolicy, refitPictures } from ${JSON.stringify(library)};
        const workspace = Workspace.open('workspace');
        const told = [];
        const { manifest } = await refitPictures(workspace, 'camera', 'ready', defaultPolicy, {
          limits: { longest: 300, widths: [] },
          onProgress: ({ stage }) => told.push(stage),
        });
        workspace.close();
        console.log(JSON.stringify({ manifest, told }));`,
    });
    const { stdout } = await promisify(execFile)(process.execPath, ['own.mjs'], { cwd });
    const { manifest, told } = JSON.parse(stdout) as {
      manifest: { files: { path: string; to: { width: number; bytes: number } }[] };
      told: string[];
    };
    expect(manifest.files).toMatchObject([{ path: 'kite.avif', to: { width: 300 } }]);
    expect(readFileSync(join(cwd, 'ready/kite.avif'))).toHaveLength(manifest.files[0]!.to.bytes);
    expect([...new Set(told)]).toEqual(['images', 'pictures', 'files']);
  });
});
