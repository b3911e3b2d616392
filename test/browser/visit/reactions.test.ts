import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { sweepRange } from '../../../dist/src/browser/visit/sweep.js';
import { slotWidthAt } from '../../../src/core/slots/slot-curve.js';
import { curveOf, visitSwept } from '../../support/swept.js';

/** Carousels of npm, each with one, two or three slides beside each other, from 640 and from 1024 px on. */
const carousels: Readonly<
  Record<
    string,
    {
      readonly sheet: string;
      readonly scripts: readonly string[];
      readonly classes: { readonly whole: string; readonly row: string; readonly slide: string };
      readonly start: string;
    }
  >
> = {
  'swiper, which reacts at once': {
    sheet: 'swiper/swiper-bundle.min.css',
    scripts: ['swiper/swiper-bundle.min.js'],
    classes: { whole: 'swiper', row: 'swiper-wrapper', slide: 'swiper-slide' },
    start: `new Swiper('#carousel', {
      spaceBetween: 0,
      breakpoints: { 640: { slidesPerView: 2 }, 1024: { slidesPerView: 3 } },
    });`,
  },
  'slick-carousel, which waits until the window has rested': {
    sheet: 'slick-carousel/slick/slick.css',
    scripts: ['jquery/dist/jquery.min.js', 'slick-carousel/slick/slick.min.js'],
    classes: { whole: '', row: 'slides', slide: '' },
    start: `$('.slides').slick({
      slidesToShow: 3,
      arrows: false,
      responsive: [
        { breakpoint: 1024, settings: { slidesToShow: 2 } },
        { breakpoint: 640, settings: { slidesToShow: 1 } },
      ],
    });`,
  },
};

function ofPackages(file: string): string {
  return readFileSync(new URL(`../../../node_modules/${file}`, import.meta.url), 'utf8');
}

describe('slots that scripts size', () => {
  it('waits for scripts that react to the width of the window', async () => {
    const { result } = await visitSwept(
      `<img id="heard" src="/a.png"><img id="seen" src="/a.png"><script>
         const share = () => (innerWidth < 700 ? 1 : innerWidth < 1100 ? 0.5 : 0.25);
         const size = (image) => (image.style.width = innerWidth * share() + 'px');
         addEventListener('resize', () => size(heard));
         new ResizeObserver(() => requestAnimationFrame(() => size(seen))).observe(document.body);
         size(heard), size(seen);
       </script>`,
    );
    for (const selector of ['#heard', '#seen'])
      expect(curveOf(result, selector)).toEqual([
        { from: 320, to: 699, a: 1, b: 0 },
        { from: 700, to: 1099, a: 0.5, b: 0 },
        { from: 1100, to: 2560, a: 0.25, b: 0 },
      ]);
  });

  it('waits for them though the slot has the same width at one end', async () => {
    const { result } = await visitSwept(
      `<img id="heard" src="/a.png"><script>
         const size = () => (heard.style.width = (innerWidth < 1800 ? 300 : 600) + 'px');
         addEventListener('resize', size);
         size();
       </script>`,
    );
    expect(curveOf(result, '#heard')).toEqual([
      { from: 320, to: 1799, a: 0, b: 300 },
      { from: 1800, to: 2560, a: 0, b: 600 },
    ]);
  });

  it.each([
    ['in which no script may run', 'sandbox'],
    ['of another origin, out of sight', 'sandbox="allow-scripts" style="margin-top: 9000px"'],
  ])('waits for them beside a frame %s', async (_, attributes) => {
    const { result } = await visitSwept(
      `<img id="heard" src="/a.png"><script>
         const size = () => (heard.style.width = innerWidth * (innerWidth < 1100 ? 1 : 0.5) + 'px');
         addEventListener('resize', size);
         size();
       </script>
       <iframe ${attributes} src="/frame"></iframe>`,
      { '/frame': { body: '<!doctype html><img src="/b.png" width="120" height="80">' } },
    );
    expect(curveOf(result, '#heard')).toEqual([
      { from: 320, to: 1099, a: 1, b: 0 },
      { from: 1100, to: 2560, a: 0.5, b: 0 },
    ]);
    const inFrame = result.curves.find(({ selector }) => selector.includes('>>>'));
    expect(inFrame?.pieces).toEqual([{ from: 320, to: 2560, a: 0, b: 120 }]);
  });

  it.each(Object.keys(carousels))(
    'measures the slides of a carousel of others: %s',
    async (name) => {
      const { sheet, scripts, classes, start } = carousels[name]!;
      const slides = `<div class="${classes.slide}"><img src="/a.png"></div>`.repeat(6);
      const { result } = await visitSwept(
        `<link rel="stylesheet" href="/${sheet}"><style>img { width: 100% }</style>
       <div id="carousel" class="${classes.whole}"><div class="${classes.row}">${slides}</div></div>
       ${scripts.map((script) => `<script src="/${script}"></script>`).join('')}
       <script>${start}</script>`,
        {
          [`/${sheet}`]: { type: 'text/css', body: ofPackages(sheet) },
          ...Object.fromEntries(
            scripts.map((script) => [
              `/${script}`,
              { type: 'text/javascript', body: ofPackages(script) },
            ]),
          ),
        },
      );
      const ofSlides = result.curves.filter(({ pieces }) => pieces[0]!.from === sweepRange.from);
      expect(ofSlides.length).toBeGreaterThanOrEqual(6);
      for (const { pieces } of ofSlides)
        for (const [width, shown] of [
          ...[320, 500, 639].map((one) => [one, 1] as const),
          ...[640, 800, 1023].map((one) => [one, 2] as const),
          ...[1024, 1800, 2560].map((one) => [one, 3] as const),
        ])
          expect(slotWidthAt(pieces, width)).toBeCloseTo(width / shown, 0);
    },
  );

  it.each([
    ['a timer that every event sets anew', 'clearTimeout(timer); timer = setTimeout(react, 250)'],
    [
      'a timer that looks at the clock when it ends',
      `heardAt = Date.now();
       const look = () => (Date.now() - heardAt < 250 ? wait() : react());
       const wait = () => (timer = setTimeout(look, 250 + heardAt - Date.now()));
       if (!timer) wait()`,
    ],
  ])('does not measure before scripts have waited: %s', async (_, heard) => {
    const { result } = await visitSwept(
      `<img id="late" src="/a.png"><script>
         let timer, heardAt;
         const react = () => {
           timer = undefined;
           late.style.width = innerWidth / (innerWidth < 1300 ? 1 : 4) + 'px';
         };
         react();
         addEventListener('resize', () => { ${heard} });
         const turn = () => setTimeout(turn, 400);
         turn();
       </script>`,
    );
    const late = curveOf(result, '#late')!;
    for (const width of [320, 800, 1290, 1310, 1800, 2560])
      expect(slotWidthAt(late, width)).toBeCloseTo(width / (width < 1300 ? 1 : 4), 0);
  });
});
