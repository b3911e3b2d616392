import type { Size } from '../../base/size.js';
import { elementText } from '../../slots/element-markup.js';
import type { ElementMarkup } from '../../slots/element-markup.js';
import { boxText, withRatio } from './element-box.js';
import { refittedElement } from './refitted-element.js';
import type { MarkupForm } from './refitted-element.js';
import type { MadeJob } from '../refit-job.js';

/**
 * The element that shows a picture that is on no page yet; what nobody knows of it is asked for in comments.
 *
 * @param natural pixels of the original
 */
export function newElementText(job: MadeJob, natural: Size, form: MarkupForm): string {
  const bare: ElementMarkup = {
    attributes: [
      ['src', job.file.originals[0]!],
      ['alt', ''],
    ],
    picture: null,
  };
  const made = refittedElement(bare, job, {
    ...{ form, negotiated: false, sizes: null },
    attributes: { ...boxText(natural), ...withRatio(bare, natural), loading: 'lazy' },
  });
  const asks = [
    'describe the picture',
    ...(job.variants.some(({ use }) => use === 'width') ? ['width of its slot'] : []),
  ];
  return [...asks.map((words) => `<!-- ${words} -->`), elementText(made)].join('\n');
}
