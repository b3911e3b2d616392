import { describe, expect, it } from 'vitest';
import { temporaryFolder } from '../support/folder.js';
import { oneView, run } from '../support/program.js';
import { slotsIn, wastefulPage, wasteIn } from '../support/wasteful-page.js';

describe('the first estimate of a survey', () => {
  it('ranks the images before all encodes are made, and tells nearly what the end tells', async () => {
    const cwd = temporaryFolder();
    const { status, stdout, stderr } = await run(['survey', await wastefulPage(cwd), ...oneView], {
      cwd,
    });
    expect(status).toBe(0);
    const [before, after] = ['encoding images once 3/3', 'encoding images 3/3'];
    const first = 'First estimate, from one encode of each of 3 images; the exact bytes follow';
    const places = [before, first, after].map((words) => stderr.indexOf(words));
    expect(Math.min(...places)).toBeGreaterThanOrEqual(0);
    expect(places).toEqual([...places].sort((one, other) => one - other));
    expect(stdout).not.toContain('First estimate');
    expect(Math.abs(wasteIn(stderr) / wasteIn(stdout) - 1)).toBeLessThan(0.1);
    expect(slotsIn(stderr)).toEqual(['#beach', '#sand', '#kites']);
    expect(slotsIn(stdout)).toEqual(['#beach', '#sand', '#kites']);
  });
});
