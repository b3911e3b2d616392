import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { serveArchive } from '../../demo/archive/archive.js';
import { sins, sinsByPage } from '../../demo/archive/sins/index.js';
import { findingKinds } from '../../src/core/findings/index.js';
import { temporaryFolder } from '../support/folder.js';
import { run, runJson } from '../support/program.js';
import { deliveryOf, surveyArchive } from './delivery.js';

interface FindingsDocument {
  readonly findings: readonly {
    readonly id: string;
    readonly about: string;
    readonly worst: string;
  }[];
}

const kinds = findingKinds.site.map(({ id }) => id);
/** Needs pages of several templates, and is committed by all of the archive. */
const ofTheSite = 'needed-by-few';

async function archiveIn(cwd: string, isMended: boolean) {
  const archive = await serveArchive(isMended);
  try {
    await surveyArchive([archive.start], archive, cwd);
  } finally {
    await archive.close();
  }
  return archive;
}

describe('the archive of the demo', () => {
  it('commits every sin that a finding tells of, and its list of sins has them all', () => {
    const committed = new Set([...sins.map(({ finding }) => finding), ofTheSite]);
    expect([...committed].sort()).toEqual([...kinds].sort());
    const list = readFileSync(new URL('../../demo/SINS.md', import.meta.url), 'utf8');
    for (const { finding, fault } of sins) expect(list).toContain(`| ${fault} | \`${finding}\` |`);
    expect(list).toContain(`\`${ofTheSite}\``);
  });

  it('is found guilty of each on the page that commits it, and of nothing on the one that does not', async () => {
    const cwd = temporaryFolder();
    const archive = await archiveIn(cwd, false);
    for (const [at, [name, own]] of Object.entries(sinsByPage).entries()) {
      const found = await deliveryOf(archive.found[at]!, cwd);
      const expected = own.flatMap(({ finding, also = [] }) => [finding, ...also]);
      expect([name, new Set(found.map(({ id }) => id))]).toEqual([name, new Set(expected)]);
    }
    expect(await deliveryOf(archive.found.at(-1)!, cwd)).toEqual([]);
    const { findings } = await runJson<FindingsDocument>(['rank', '--by', 'finding'], { cwd });
    const ids = findings.filter(({ about }) => about !== 'image').map(({ id }) => id);
    expect(ids.sort()).toEqual([...kinds].sort());
    expect(findings.find(({ id }) => id === ofTheSite)!.worst).toMatch(/\/album\.css$/);
    const explained = await run(['explain', ofTheSite], { cwd });
    const words = explained.stdout.replaceAll(/\s+/g, ' ');
    expect(words).toMatch(/is needed by .*films.* load its .*, too/);
  });

  it('is found guilty of nothing when every fix is applied', async () => {
    const cwd = temporaryFolder();
    await archiveIn(cwd, true);
    const { findings } = await runJson<FindingsDocument>(['rank', '--by', 'finding'], { cwd });
    expect(findings.filter(({ about }) => about !== 'image')).toEqual([]);
  });
});
