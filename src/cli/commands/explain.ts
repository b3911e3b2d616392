import { object, string } from 'yup';
import { defineCommand } from '../command.js';
import { shared } from '../common-options.js';

const top = shared.top(12, 'placements, or images of a page');

export const schema = object({
  what: string().defined().min(1, 'an address, a content hash or a selector'),
  survey: shared.survey.check,
  top: top.check,
  svg: string().min(1, 'the path of a file'),
});

export const explainCommand = defineCommand({
  call: 'explain <what>',
  describe: 'Tell everything that is known of one image or page, and what to do',
  positionals: { what: 'An address or path, a content hash, or a selector' },
  options: {
    survey: shared.survey.option,
    top: top.option,
    svg: {
      describe: "Write the image's slot curve as an SVG picture to this file",
      type: 'string',
      requiresArg: true,
    },
  },
  schema,
  examples: [
    ['explain /img/hero.jpg', 'an image, by its path'],
    ['explain 3fa9c1d0', 'an image, by the beginning of its content hash'],
    ["explain '#hero > img' --svg hero.svg", 'what an element shows, with its slot curve'],
    ['explain /journal/', 'a page: its weight, and its images in order'],
  ],
  load: () => import('../handlers/explain.js'),
});
