import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import Database from 'libsql';
import sharp from 'sharp';
import { describe, expect } from 'vitest';
import { outcomeOf, programFile, run, runJson, start } from '../support/program.js';
import { attack } from './attack.js';
import { surveyedDays } from './surveyed-days.js';

const { ranked, survey, origin, folder, undisturbed, underWay } = surveyedDays();

/** A copy of the workspace whose bodies have flipped bytes, are cut off and empty. */
function damaged(name: string): string {
  cpSync(join(folder(), 'whole'), join(folder(), name), { recursive: true });
  const bodies = readdirSync(join(folder(), name, 'bodies'), { recursive: true, encoding: 'utf8' })
    .map((path) => join(folder(), name, 'bodies', path))
    .filter((path) => statSync(path).isFile())
    .sort();
  bodies.forEach((path, at) => {
    const body = readFileSync(path);
    if (at % 4 === 0) body[body.length >> 1]! ^= 0xff;
    if (at % 4 < 3)
      writeFileSync(path, at % 4 === 1 ? '' : body.subarray(0, at % 4 === 2 ? 50 : undefined));
  });
  return name;
}

describe('accidents', () => {
  attack('held', 'a database that somebody else holds for eight seconds', async () => {
    cpSync(join(folder(), 'whole'), join(folder(), 'held'), { recursive: true });
    const database = new Database(join(folder(), 'held/workspace.sqlite'));
    database.exec('BEGIN IMMEDIATE');
    const renamed = run(['surveys', 'rename', 'kites', 'held', '--workspace', 'held'], {
      cwd: folder(),
    });
    await after(8_000);
    database.exec('ROLLBACK');
    database.close();
    expect((await renamed).status).toBe(0);
  });

  attack('held', 'Ctrl-C, and once more at once', async () => {
    const child = start(survey('twice', '--json'), { cwd: folder() });
    const ended = outcomeOf(child);
    await underWay('twice');
    child.kill('SIGINT');
    await after(20);
    child.kill('SIGINT');
    const began = performance.now();
    expect((await ended).status).toBe(130);
    expect(performance.now() - began).toBeLessThan(3_000);
    await runJson(['survey', '--resume', '--workspace', 'twice'], { cwd: folder() });
    expect(await ranked('twice')).toBe(undisturbed());
  });

  attack('told', 'a workspace that may be read and not written', async () => {
    if (process.getuid?.() !== 0)
      return process.stderr.write('only root can become somebody else here\n') as never;
    cpSync(join(folder(), 'whole'), join(folder(), 'foreign'), { recursive: true });
    await once(spawn('chmod', ['-R', 'a+rX,go-w', folder()]), 'exit');
    const nobody = { uid: 65534, gid: 65534, cwd: folder(), encoding: 'utf8' } as const;
    for (const call of [['rank'], ['surveys', 'rename', 'kites', 'mine'], ['history']]) {
      const { status, stderr } = spawnSync(
        process.execPath,
        [programFile, ...call, '--workspace', 'foreign'],
        { ...nobody, env: { PATH: process.env['PATH'], HOME: folder(), NO_COLOR: '1' } },
      );
      expect([status, stderr]).toEqual([
        3,
        expect.stringMatching(/^zealous-lynx: the workspace foreign .* \[WORKSPACE\]\n$/),
      ]);
    }
  });

  attack('held', 'a ranking and a report of damaged bodies', async () => {
    const workspace = damaged('shown');
    const database = new Database(join(folder(), workspace, 'workspace.sqlite'));
    // What was looked at once is not looked at again.
    database.exec('DELETE FROM fingerprint');
    database.close();
    for (const call of [['report', '--out', 'shown.html'], ['rank']]) {
      const { status, stderr } = await run([...call, '--workspace', workspace], { cwd: folder() });
      expect([call[0], status, stderr]).toEqual([
        call[0],
        0,
        expect.not.stringContaining('UNEXPECTED'),
      ]);
    }
  });

  attack('held', 'bodies with flipped bytes, cut off and empty', async () => {
    damaged('damaged');
    const out = [
      'refit',
      '--workspace',
      'damaged',
      '--out',
      'mended',
      '--no-prove',
      '--review',
      '0',
    ];
    const { files } = await runJson<{ files: { path: string }[] }>(out, { cwd: folder() });
    expect(files.length).toBeGreaterThan(5);
    for (const { path } of files) {
      const { info } = await sharp(join(folder(), 'mended', path)).toBuffer({
        resolveWithObject: true,
      });
      expect(info.width).toBeGreaterThan(0);
    }
    const { check } = await runJson<{ check: { damaged: number; database: string[] } }>(
      ['surveys', 'check', '--workspace', 'damaged'],
      { cwd: folder() },
    );
    // Those that refit had no use for are found now.
    expect(check.database).toEqual([]);
    const clean = await runJson<{ check: { damaged: number } }>(
      ['surveys', 'check', '--workspace', 'damaged'],
      { cwd: folder() },
    );
    expect(clean.check.damaged).toBe(0);
  });

  attack('told', 'a text of the database that is none', async () => {
    cpSync(join(folder(), 'whole'), join(folder(), 'unreadable'), { recursive: true });
    const database = new Database(join(folder(), 'unreadable/workspace.sqlite'));
    database.exec("UPDATE page SET final_url = CAST(x'41ff42' AS TEXT) WHERE id = 1");
    database.close();
    const { status, stdout } = await run(['surveys', 'check', '--workspace', 'unreadable'], {
      cwd: folder(),
    });
    expect([status, stdout.split('\n').slice(0, 2)]).toEqual([
      3,
      ['The database is damaged:', '  1 of the texts in page.final_url is no text'],
    ]);
  });

  attack('told', 'two programs at one survey, and one that deletes under another', async () => {
    cpSync(join(folder(), 'whole'), join(folder(), 'shared'), { recursive: true });
    const call = survey('shared', '--json', '--pace', '600').with(5, 'second');
    const child = start(call, { cwd: folder() });
    const ended = outcomeOf(child);
    await underWay('shared');
    const deleted = await run(['surveys', 'delete', 'kites', '--workspace', 'shared'], {
      cwd: folder(),
    });
    const resumed = await run(
      ['survey', '--resume', '--survey', 'second', '--workspace', 'shared'],
      { cwd: folder() },
    );
    for (const { status, stderr } of [deleted, resumed])
      expect([status, stderr]).toEqual([
        3,
        expect.stringMatching(
          /another program is at work on survey-2 \(process \d+\) – wait .* \[BUSY\]/,
        ),
      ]);
    expect((await ended).status).toBe(0);
    const again = await run(['surveys', 'delete', 'kites', '--workspace', 'shared'], {
      cwd: folder(),
    });
    expect(again.status).toBe(0);
  });

  attack('told', 'a full disk', async () => {
    const disk = join(folder(), 'small');
    mkdirSync(disk);
    const mounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=600k', 'tmpfs', disk]);
    if (mounted.status !== 0)
      return process.stderr.write('no small disk can be mounted here\n') as never;
    try {
      const { status, stdout, stderr } = await run(survey('small/workspace', '--json'), {
        cwd: folder(),
      });
      expect([status, stderr], stdout).toEqual([
        3,
        expect.stringMatching(/the disk is full|No space left|disk is full/),
      ]);
      expect(stderr).not.toMatch(/UNEXPECTED/);
    } finally {
      spawnSync('umount', [disk]);
    }
  });

  attack('told', 'places that cannot be written to', async () => {
    writeFileSync(join(folder(), 'file'), 'x');
    for (const place of ['/proc/x', '/dev/null/x', 'file', '/dev/full/x'])
      for (const call of [
        ['refit', '--workspace', 'whole', '--out', place, '--no-prove'],
        ['report', '--workspace', 'whole', '--out', `${place}/r.html`],
        ['survey', `${origin()}/`, '--workspace', place],
      ]) {
        const began = performance.now();
        const { status, stderr } = await run(call, { cwd: folder() });
        expect([2, 3], `${call.join(' ')}: ${stderr}`).toContain(status);
        expect(stderr.trim().split('\n').at(-1)).toMatch(
          /^zealous-lynx: .* \[(?:OUTPUT|WORKSPACE|USAGE|SYSTEM)\]$/,
        );
        expect(performance.now() - began).toBeLessThan(20_000);
      }
  });
});
