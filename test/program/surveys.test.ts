import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { temporaryFolder, writeFiles } from '../support/folder.js';
import { oneView, run, runJson } from '../support/program.js';
import { photograph } from '../support/pictures.js';
import { schemaErrors } from '../support/schemas.js';

interface SurveysDocument {
  readonly size: { readonly database: number; readonly bodies: number };
  readonly surveys: readonly {
    readonly label: string;
    readonly files: number;
    readonly bytes: number;
    readonly pages: number;
  }[];
}

interface RankDocument {
  readonly totals: { readonly wasteBytes: number; readonly unknownBytes: number };
  readonly images: readonly { readonly findings: readonly { readonly message: string }[] }[];
}

const bodiesIn = (cwd: string) =>
  readdirSync(join(cwd, '.zealous-lynx', 'bodies'), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map(({ name }) => name);

describe('surveys', () => {
  it('are listed with their sizes, renamed, and deleted with what only they hold', async () => {
    const cwd = temporaryFolder();
    const shared = await photograph(200, 100, 1).jpeg().toBuffer();
    const own = await photograph(300, 200, 2).jpeg().toBuffer();
    writeFiles(cwd, {
      'one/index.html': '<title>t</title><img src="s.jpg" width="50"><img src="o.jpg" width="50">',
      'one/s.jpg': shared,
      'one/o.jpg': own,
      'two/index.html': '<title>t</title><img src="s.jpg" width="50">',
      'two/s.jpg': shared,
    });
    await run(['survey', 'one', '--label', 'first', ...oneView], { cwd });
    await run(['survey', 'two', ...oneView], { cwd });
    const before = await runJson<SurveysDocument>(['surveys'], { cwd });
    expect(schemaErrors('surveys', before)).toEqual([]);
    expect(before.surveys.map(({ label, files, bytes }) => [label, files, bytes])).toEqual([
      ['first', 2, shared.length + own.length],
      ['survey-2', 1, shared.length],
    ]);
    const bodies = bodiesIn(cwd).length;
    // Two photographs, an encode of each, and two documents.
    expect(bodies).toBe(6);

    expect((await run(['surveys', 'rename', 'survey-2', 'second'], { cwd })).stdout).toMatch(
      /^second +\S+ \S+ +complete +1 +1 +1 /m,
    );
    const after = await runJson<SurveysDocument>(['surveys', 'delete', 'first'], { cwd });
    expect(after.surveys.map(({ label }) => label)).toEqual(['second']);
    expect(bodiesIn(cwd)).toHaveLength(3);
    expect(after.size.bodies).toBeLessThan(before.size.bodies - own.length);
    const { totals } = await runJson<RankDocument>(['rank'], { cwd });
    expect(totals.wasteBytes).toBeGreaterThan(0);

    const unknown = await run(['surveys', 'delete', 'first'], { cwd });
    expect(unknown.stderr).toContain('there is no survey first – there are: second');
    expect((await run(['surveys', 'delete'], { cwd })).stderr).toContain(
      'delete takes the label of a survey',
    );
  });

  it('may leave the bodies of images out, or their encodes to rank', async () => {
    const cwd = temporaryFolder();
    writeFiles(cwd, {
      'site/index.html': '<title>t</title><img src="a.jpg" width="50">',
      'site/a.jpg': await photograph(200, 100).jpeg().toBuffer(),
    });
    await run(['survey', 'site', '--no-encode', ...oneView], { cwd });
    // The photograph and the document.
    expect(bodiesIn(cwd)).toHaveLength(2);
    const ranked = await runJson<RankDocument>(['rank'], { cwd });
    expect(ranked.totals.wasteBytes).toBeGreaterThan(0);
    await run(['survey', 'site', '--no-bodies', '--workspace', 'thin', ...oneView], { cwd });
    expect(readdirSync(join(cwd, 'thin'))).not.toContain('bodies');
    const thin = await runJson<RankDocument>(['rank', '--workspace', 'thin'], { cwd });
    expect(thin.totals).toMatchObject({ wasteBytes: 0 });
    expect(thin.totals.unknownBytes).toBeGreaterThan(0);
    expect(thin.images[0]!.findings[0]!.message).toMatch(/^its body was not kept/);
  });
});
