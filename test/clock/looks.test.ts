import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

interface CompareDocument {
  readonly pages: readonly {
    readonly looks: {
      readonly similarity: number;
      readonly changedShare: number;
      readonly regions: readonly { readonly left: number; readonly top: number }[];
      readonly before: { readonly width: number; readonly height: number };
    } | null;
  }[];
}

describe('compare, of how pages look', () => {
  it('says whether a page still looks the same, and draws where it does not', async () => {
    const cwd = temporaryFolder();
    const jpeg = (quality: number) => photograph(300, 200).jpeg({ quality }).toBuffer();
    const answers: Record<string, Answer> = {
      '/': {
        body: `<!doctype html><body style="margin:0"><h1>Kites</h1><div style="height:2000px"></div>
          <img id="far" loading="lazy" src="/a.jpg" width="300" height="200" style="position:absolute;left:24px;top:1800px">`,
      },
      '/a.jpg': { type: 'image/jpeg', body: await jpeg(95) },
    };
    const { origin } = await serve(answers);
    const clock = (label: string) =>
      runJson(['clock', `${origin}/`, '--runs', '1', '--network', 'none', '--label', label], {
        cwd,
      });
    await clock('before');
    answers['/a.jpg'] = { type: 'image/jpeg', body: await jpeg(85) };
    await clock('lighter');
    answers['/a.jpg'] = {
      type: 'image/jpeg',
      body: await photograph(300, 200).negate().jpeg().toBuffer(),
    };
    await clock('broken');

    const looksOf = async (after: string) => {
      const document = await runJson<CompareDocument>(['compare', 'before', after], { cwd });
      expect(schemaErrors('compare', document)).toEqual([]);
      return document.pages[0]!.looks!;
    };
    const lighter = await looksOf('lighter');
    expect(lighter.similarity).toBeGreaterThan(0.99);
    expect(lighter).toMatchObject({ changedShare: 0, regions: [], before: { width: 390 } });
    const broken = await looksOf('broken');
    expect(broken.changedShare).toBeGreaterThan(0.02);
    expect(broken.regions[0]!.left).toBe(24);
    expect(broken.regions[0]!.top).toBe(1800);

    const text = await run(['compare', 'before', 'broken', '--looks', 'looks.png'], { cwd });
    expect(text.stdout).toMatch(
      /Looks: similarity 0\.\d+; .* of the page looks different, most of it .* px at left 24, top 1800/,
    );
    const drawn = await sharp(readFileSync(join(cwd, 'looks.png'))).metadata();
    expect(drawn.width).toBeGreaterThan(3 * 390);
    expect(drawn.height).toBeGreaterThan(2000);
  });
});
