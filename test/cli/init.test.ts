import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { completed, fileSchema } from '../../src/cli/options/config-file.js';
import { configTemplate } from '../../src/cli/options/config-template.js';
import { parseYaml } from '../../src/cli/options/yaml.js';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { defaultViews } from '../../src/core/visitors/view.js';
import { temporaryFolder } from '../support/folder.js';
import { runHere } from '../support/program.js';

/** The file with every setting in force; a remark is a "#" with one blank behind it. */
const inForce = configTemplate.replace(/^#(?=\w| {2})/gm, '');

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

  it('tells the defaults as they are, and every part that the file may have', () => {
    const contents = fileSchema.validateSync(parseYaml(inForce));
    expect(Object.keys(contents).sort()).toEqual(Object.keys(fileSchema.fields).sort());
    const { policy, views } = completed(contents);
    expect(policy).toEqual(defaultPolicy);
    expect(views).toEqual(defaultViews);
  });
});
