import { defineCommand } from '../command.js';
import { filePath, yesOrNo } from '../options/checks.js';
import { defaultConfigFile } from '../options/config-file.js';
import { option } from '../options/option.js';

export const initCommand = defineCommand({
  name: 'init',
  describe: 'Write a config file with all settings as comments, to change what you want',
  positionals: {},
  options: {
    out: option('File to write', filePath().default(defaultConfigFile)),
    force: option('Write over a config file that is there', yesOrNo().default(false)),
  },
  examples: [
    ['init', `writes ${defaultConfigFile} in this folder`],
    ['init --out kites.yaml', 'under another name, to be used with --config'],
  ],
});
