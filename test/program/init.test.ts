import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { configTemplate } from '../../src/cli/options/config-template.js';
import { parseYaml } from '../../src/cli/options/yaml.js';
import { temporaryFolder } from '../support/folder.js';
import { runHere } from '../support/program.js';

describe('init', () => {
  it('writes a file that changes nothing until it is edited, and never over one that is there', async () => {
    const cwd = temporaryFolder();
    const first = await runHere(['init'], { cwd });
    expect([first.status, first.stderr]).toEqual([0, '']);
    const path = join(cwd, 'zealous-lynx.config.yaml');
    expect(parseYaml(readFileSync(path, 'utf8'))).toBeNull();
    writeFileSync(path, 'tabs: 2\n');
    const second = await runHere(['init'], { cwd });
    expect([second.status, second.stderr]).toEqual([
      2,
      expect.stringContaining('is there already'),
    ]);
    expect(readFileSync(path, 'utf8')).toBe('tabs: 2\n');
    expect((await runHere(['init', '--force'], { cwd })).status).toBe(0);
    expect(readFileSync(path, 'utf8')).toBe(configTemplate);
  });
});
