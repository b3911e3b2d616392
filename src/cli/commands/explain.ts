import { string } from 'yup';
import { defineCommand } from '../command.js';
import { imageForms } from '../forms/explain.js';
import { formOptions } from '../forms/form.js';
import { option } from '../options/option.js';
import { shared } from '../options/shared.js';

const what = 'an address, a path, a content hash, a selector, a slot or the id of a finding';

export const explainCommand = defineCommand({
  name: 'explain',
  describe: 'Show everything that is known about one image, page, slot or finding, and what to do',
  positionals: {
    what: option(
      'An address or path, a content hash, a selector, a slot of rank, or the id of a finding',
      string().required(what),
    ),
  },
  options: {
    survey: shared.survey,
    top: shared.top(12, 'placements, or images of a page'),
    ...formOptions(imageForms),
  },
  examples: [
    ['explain /img/hero.jpg', 'an image, by its path'],
    ["explain '.card > img'", 'the images that a CSS selector finds'],
    ['explain 3fa9c1d0', 'an image, by the start of its content hash'],
    ["explain '#hero > img' --svg hero.svg", 'the image in an element, with its slot curve'],
    ["explain 'main > figure > img'", 'a slot family, as rank names it: its widths and its images'],
    ['explain wrong-sizes', 'a finding: how to fix it, and the images that have it'],
    ['explain /journal/', 'a page: its weight, and its images in sequence'],
  ],
});
