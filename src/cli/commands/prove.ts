import { string } from 'yup';
import { defineCommand } from '../command.js';
import { proveForms } from '../forms/prove.js';
import { formOptions } from '../forms/form.js';
import { accessOptions } from '../options/access-options.js';
import { filePath, folderPath } from '../options/checks.js';
import { option } from '../options/option.js';
import { shared } from '../options/shared.js';

export const proveCommand = defineCommand({
  name: 'prove',
  describe: 'Try markup in the place of an image of a page, in every view, before it goes live',
  positionals: {
    page: option('Address, or folder of a static site', string().required('an address')),
    selector: option(
      'Selector of the image, as rank and explain print it',
      string().required('a selector'),
    ),
    markup: option('File with the markup', filePath(), 'standard input'),
  },
  options: {
    files: option(
      'Folder with files that the site does not have yet, at their paths on the site',
      folderPath(),
    ),
    styles: option('File with style rules that go live with the markup', filePath()),
    ...accessOptions,
    mapHost: shared.mapHost,
    allowHost: shared.allowHost,
    memory: shared.memory,
    ...formOptions(proveForms),
  },
  examples: [
    ["prove http://brindlebay.test/ '#hero > img' hero.html", 'a fix made by hand'],
    ["prove http://brindlebay.test/ '#hero > img' hero.html --files refit", 'with its new files'],
    ["prove http://brindlebay.test/ '#hero > img' hero.html --styles new.css", 'with its rules'],
    ["prove site '#hero > img' --json < hero.html", 'in a folder, from another program'],
  ],
});
