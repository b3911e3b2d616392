import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';

interface Compared {
  readonly pages: readonly {
    readonly requests: readonly {
      readonly before: { readonly url: string } | null;
      readonly after: object | null;
      readonly putOff: boolean;
      readonly bytes: number;
    }[];
  }[];
}

describe('images that wait for a scroll', () => {
  it('are told as put off and summed apart, and not as gone', async () => {
    const cwd = temporaryFolder();
    const body = await photograph(300, 200).jpeg().toBuffer();
    let attributes = '';
    let last = '<img src="/gone.jpg" width="100">';
    const page = () => ({
      body: `<!doctype html><title>Kites</title><img src="/top.jpg" width="100"><div style="height:9000px"></div><img src="/far.jpg" width="100" ${attributes}>${last}`,
    });
    const picture = { type: 'image/jpeg', body };
    const { origin } = await serve({
      ...{ '/': page, '/top.jpg': picture, '/far.jpg': picture, '/gone.jpg': picture },
    });
    const clock = (label: string) =>
      run(['clock', `${origin}/`, '--runs', '1', '--network', 'none', '--label', label], { cwd });
    await clock('eager');
    [attributes, last] = ['loading="lazy"', ''];
    await clock('lazy');
    const compared = await runJson<Compared>(['compare', 'eager', 'lazy'], { cwd });
    expect(schemaErrors('compare', compared)).toEqual([]);
    const fates = compared.pages[0]!.requests.filter(({ after }) => after === null).map(
      ({ before, putOff }) => [new URL(before!.url).pathname, putOff],
    );
    expect(Object.fromEntries(fates)).toEqual({ '/far.jpg': true, '/gone.jpg': false });
    const { stdout } = await run(['compare', 'eager', 'lazy'], { cwd });
    expect(stdout).toMatch(/1 gone, 0 new/);
    expect(stdout).toMatch(/1 lazy image with [\d.]+ kB put off until somebody scrolls there/);
    expect(stdout).toMatch(/\/far\.jpg +[\d.]+ kB +put off/);
  });
});
