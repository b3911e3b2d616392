import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { oneView, outcomeOf, run, start } from '../support/program.js';
import { slotsIn, wastefulPage, wasteIn } from '../support/wasteful-page.js';

describe('the first estimate of a survey', () => {
  it('is not told where quiet or no encodes are asked for, or where all encodes are there', async () => {
    const cwd = temporaryFolder();
    const site = await wastefulPage(cwd);
    const bare = await run(['survey', site, ...oneView, '--no-encode'], { cwd });
    expect(bare.stderr).not.toContain('First estimate');
    const quiet = await run(['survey', site, ...oneView, '--quiet'], { cwd });
    expect(quiet.stderr).not.toContain('First estimate');
    expect(wasteIn(quiet.stdout)).toBeGreaterThan(0);
    const again = await run(['survey', site, ...oneView], { cwd });
    expect(again.stderr).not.toContain('First estimate');
    expect(again.stdout.split('\n').slice(1)).toEqual(quiet.stdout.split('\n').slice(1));
  });

  it('leaves nothing behind: a survey that is stopped after it comes to the same numbers', async () => {
    const cwd = temporaryFolder();
    const child = start(['survey', await wastefulPage(cwd), ...oneView], { cwd });
    child.stderr!.setEncoding('utf8').on('data', (text: string) => {
      if (text.includes('First estimate')) child.kill('SIGINT');
    });
    const stopped = await outcomeOf(child);
    expect(stopped.status).toBe(130);
    expect(stopped.stdout).toContain('Stopped. What was surveyed is kept');
    const resumed = await run(['survey', '--resume'], { cwd });
    expect(resumed.status).toBe(0);

    const other = temporaryFolder();
    const whole = await run(['survey', await wastefulPage(other), ...oneView], { cwd: other });
    expect(wasteIn(resumed.stdout)).toBe(wasteIn(whole.stdout));
    expect(slotsIn(resumed.stdout)).toEqual(slotsIn(whole.stdout));
  });
});
