import type { Fix } from './fix.js';
import { giveAttributes } from './snippet-attributes.js';

export const dimensions: Fix = {
  name: 'dimensions',
  title: 'width and height of images, as the refit has them',
  unit: 'element',
  isOfBytes: false,
  isUsual: ({ refit }) => refit !== null,
  apply: (recording, tools) =>
    giveAttributes(recording, tools, ['width', 'height', 'style'], { withRules: true }),
};
