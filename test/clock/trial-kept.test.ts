import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { run, runJson } from '../support/program.js';
import { schemaErrors } from '../support/schemas.js';
import { serve } from '../support/server.js';
import type { Answer } from '../support/server.js';

interface Compared {
  readonly pages: readonly {
    readonly markers: Readonly<Record<string, { readonly difference: number }>>;
    readonly tried: Readonly<
      Record<string, { readonly difference: number; readonly agrees: boolean | null }>
    > | null;
  }[];
}

const conditions = ['--network', 'none', '--view', 'laptop', '--runs', '3'];
/** Milliseconds that the third party takes. */
const slow = 1_500;
const head = '<link rel="icon" href="data:,">';
const tag = '<script src="http://tags.drift.test/tag.js"></script>';

describe('what a trial had said', () => {
  it('is held against what was measured since', async () => {
    const cwd = temporaryFolder();
    const page = (more: string): Answer => ({
      body: `<!doctype html>${head}${more}<h1>Bay</h1><img src="/kite.jpg">`,
    });
    const answers: Record<string, Answer> = {
      '//bay.test/': page(tag),
      '//tags.drift.test/tag.js': { type: 'text/javascript', body: '', wait: slow },
      '/kite.jpg': { type: 'image/jpeg', body: await photograph(300, 200).jpeg().toBuffer() },
    };
    const { address } = await serve(answers);
    const hosts = ['--map-host', `*.test=${address}`];
    const clock = (label: string) =>
      runJson(['clock', 'http://bay.test/', '--label', label, ...conditions, ...hosts], { cwd });
    await runJson(
      [
        ...['trial', 'http://bay.test/', '--label', 'tried', '--most-runs', '3'],
        ...['--without-host', 'drift.test', '--fix', 'without-hosts', ...conditions, ...hosts],
      ],
      { cwd },
    );
    await clock('before');
    // It is deployed as it was tried.
    answers['//bay.test/'] = page('');
    await clock('after');

    const compare = (before: string, after: string) =>
      runJson<Compared>(['compare', before, after, '--tried', 'tried'], { cwd });
    const deployed = await compare('before', 'after');
    expect(schemaErrors('compare', deployed)).toEqual([]);
    const { load } = deployed.pages[0]!.tried!;
    expect(load!.difference).toBeLessThan(-slow / 2);
    expect(deployed.pages[0]!.markers['load']!.difference).toBeLessThan(-slow / 2);
    // How near they are is the machine's business; the trial agrees with itself, and not with the opposite.
    const same = await compare('tried-before', 'tried-after');
    expect(same.pages[0]!.tried!['load']!.agrees).toBe(true);
    const opposite = await compare('after', 'before');
    expect(opposite.pages[0]!.tried!['load']!.agrees).toBe(false);

    const printed = async (before: string, after: string, ...form: string[]) =>
      (await run(['compare', before, after, '--tried', 'tried', ...form], { cwd })).stdout;
    expect(await printed('after', 'before')).toMatch(
      /Against the trial\n(?:.*\n)? {2}load −\d.* tried, \+\d.* measured: it brought less/,
    );
    expect(await printed('tried-before', 'tried-after', '--markdown')).toMatch(
      /^- load −\d.* tried, −\d.* measured: they agree$/m,
    );
    const table = await printed('tried-before', 'tried-after', '--csv');
    expect(table).toMatch(/,runsToSettle,tried,triedLow,triedHigh,agrees\r?\n/);
    expect(table).toMatch(/,load,.*,yes\r?$/m);
    const unknown = await run(['compare', 'before', 'after', '--tried', 'never'], { cwd });
    expect(unknown.status).toBe(2);
    expect(unknown.stderr).toContain('there is no trial never of http://bay.test/');
  });
});
