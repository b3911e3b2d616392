import type { LaidOutImage } from '../../core/refit/markup/markup-try.js';
import type { Proof } from '../../core/refit/markup/proof.js';

/** A proof as the document `zealous-lynx.prove/1`; boxes in CSS pixels of the page. */
export function proofDocument({ page, selector, views, absent }: Proof) {
  return {
    format: 'zealous-lynx.prove/1',
    page,
    selector,
    holds: views.every(({ problem }) => problem === null),
    views: views.map(({ view, problem, before, after }) => ({
      view: view.name,
      problem,
      before: imageDocument(before),
      after: imageDocument(after),
    })),
    absent: absent.map(({ name }) => name),
  };
}

function imageDocument({ box, url, pixels }: LaidOutImage) {
  const { left, top, width, height } = box;
  return { url, pixels, box: { left, top, width, height } };
}
