import { describe, expect, it } from 'vitest';
import { completed, fileSchema } from '../../src/cli/options/config-file.js';
import { configTemplate } from '../../src/cli/options/config-template.js';
import { parseYaml } from '../../src/cli/options/yaml.js';
import { defaultPolicy } from '../../src/core/policy/policy.js';
import { defaultViews } from '../../src/core/visitors/view.js';

/** The file with every setting in force; a remark is a "#" with one blank behind it. */
const inForce = configTemplate.replace(/^#(?=\w| {2})/gm, '');

describe('the config file of init', () => {
  it('tells the defaults as they are, and every part that the file may have', () => {
    const contents = fileSchema.validateSync(parseYaml(inForce));
    expect(Object.keys(contents).sort()).toEqual(Object.keys(fileSchema.fields).sort());
    const { policy, views } = completed(contents);
    expect(policy).toEqual(defaultPolicy);
    expect(views).toEqual(defaultViews);
  });
});
