import { once } from 'node:events';
import { cpSync, existsSync, readFileSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as after } from 'node:timers/promises';
import { describe, expect } from 'vitest';
import { run, runJson, start } from '../support/program.js';
import { attack } from './attack.js';
import { moments, surveyedDays } from './surveyed-days.js';

const { ranked, survey, origin, folder, undisturbed, underWay } = surveyedDays();

/** How often a survey is killed; more where the environment asks for it. */
const kills = Number(process.env['LYNX_KILLS'] ?? 14);

/** Kills a call after so many milliseconds, unless it is done by then. */
async function killed(call: readonly string[], moment: number): Promise<void> {
  const child = start(call, { cwd: folder() });
  const ended = once(child, 'exit');
  const isOver = await Promise.race([ended.then(() => true), after(moment, false)]);
  if (!isOver) child.kill('SIGKILL');
  await ended;
}

describe('kills', () => {
  for (const moment of moments(kills, 9_000))
    attack('held', `a survey that is killed after ${moment} ms, and resumed`, async () => {
      const workspace = `killed-${moment}`;
      await killed(survey(workspace, '--json'), moment);
      const file = join(folder(), workspace, 'workspace.sqlite');
      const begun = existsSync(file)
        ? await run(['surveys', '--json', '--workspace', workspace], { cwd: folder() })
        : undefined;
      const { surveys = [] } = JSON.parse(begun?.stdout || '{}') as {
        surveys?: { finishedAt: string | null }[];
      };
      if (surveys.length === 0) await runJson(survey(workspace), { cwd: folder() });
      else if (surveys[0]!.finishedAt === null)
        await runJson(['survey', '--resume', '--workspace', workspace], { cwd: folder() });
      expect(await ranked(workspace)).toBe(undisturbed());
    });

  attack('held', 'what killed programs left behind is gone after the next run', async () => {
    const child = start(survey('left', '--json'), { cwd: folder() });
    await underWay('left');
    child.kill('SIGKILL');
    await once(child, 'exit');
    await runJson(['survey', '--resume', '--workspace', 'left'], { cwd: folder() });
    expect(
      readdirSync(tmpdir()).filter((name) => name.startsWith(`zealous-lynx-${child.pid}-`)),
    ).toEqual([]);
    const drafts = readdirSync(join(folder(), 'left'), { recursive: true, encoding: 'utf8' });
    expect(drafts.filter((name) => name.endsWith('.part'))).toEqual([]);
    expect(readdirSync(join(folder(), 'left/leases'))).toEqual([]);
  });

  for (const moment of moments(6, 4_000))
    attack('held', `a refit that is killed after ${moment} ms, and made again`, async () => {
      const call = (out: string) => [
        'refit',
        '--workspace',
        'whole',
        '--out',
        out,
        '--no-prove',
        '--review',
        '0',
      ];
      if (!existsSync(join(folder(), 'refitted')))
        await runJson(call('refitted'), { cwd: folder() });
      const workspace = `whole-${moment}`;
      cpSync(join(folder(), 'whole'), join(folder(), workspace), { recursive: true });
      const again = call(`killed-refit-${moment}`).with(2, workspace);
      await killed(again, moment);
      await runJson(again, { cwd: folder() });
      const filesOf = (out: string) =>
        readdirSync(join(folder(), out), { recursive: true, encoding: 'utf8' })
          .filter((name) => /\.(?:jpg|png|webp|avif)$/.test(name))
          .sort()
          .map((name) => [name, readFileSync(join(folder(), out, name)).toString('base64')]);
      expect(filesOf(`killed-refit-${moment}`)).toEqual(filesOf('refitted'));
    });

  for (const moment of moments(5, 3_000))
    attack('held', `a survey of what has changed that is killed after ${moment} ms`, async () => {
      const workspace = `changed-${moment}`;
      cpSync(join(folder(), 'whole'), join(folder(), workspace), { recursive: true });
      const again = ['survey', '--changed-since', 'kites', '--label', 'kites'];
      await killed([...again, '--workspace', workspace], moment);
      const { surveys } = await runJson<{ surveys: { finishedAt: string | null }[] }>(
        ['surveys', '--workspace', workspace],
        { cwd: folder() },
      );
      const isBegun = surveys.length > 1;
      if (!isBegun) await runJson([...again, '--workspace', workspace], { cwd: folder() });
      else if (surveys[1]!.finishedAt === null)
        await runJson(['survey', '--resume', '--workspace', workspace], { cwd: folder() });
      expect(await ranked(workspace)).toBe(undisturbed());
    });

  for (const moment of moments(5, 5_000))
    attack('held', `loads that are killed after ${moment} ms`, async () => {
      const workspace = `loads-${moment}`;
      cpSync(join(folder(), 'whole'), join(folder(), workspace), { recursive: true });
      const clock = [
        ...['clock', `${origin()}/1/`, '--network', 'fibre', '--runs', '2'],
        ...['--workspace', workspace, '--label', 'timed'],
      ];
      await killed(clock, moment);
      // What was begun is in nobody's way: neither in a history, nor of the next loads.
      const { status } = await run(['history', '--workspace', workspace], { cwd: folder() });
      expect(status).toBe(0);
      const { runs } = await runJson<{ runs: unknown[] }>(clock, { cwd: folder() });
      expect(runs).toHaveLength(2);
      const again = await run(['compare', 'timed', 'timed', '--workspace', workspace], {
        cwd: folder(),
      });
      expect(again.status).toBe(0);
    });
});
