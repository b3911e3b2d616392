import { describe, expect, it } from 'vitest';
import { firstWidths, sweepRange } from '../../../dist/src/browser/visit/sweep.js';
import { slotWidthAt } from '../../../src/core/slots/slot-curve.js';
import { serve } from '../../support/server.js';
import { curveOf, visitSwept } from '../../support/swept.js';

describe('the sweep', () => {
  it('finds breakpoints in imported, nested and relative conditions', async () => {
    const { result } = await visitSwept(
      `<link rel="stylesheet" href="/one.css"><style>
         #nested { width: 100px }
         @supports (display: grid) { @media (min-width: 50em) { #nested { width: 400px } } }
         #fluid { width: calc(50vw - 20px); max-width: 601px }
       </style><img id="imported" src="/a.png"><img id="nested" src="/a.png"><img id="fluid" src="/a.png">`,
      {
        '/one.css': { type: 'text/css', body: '@import url(/two.css) (width >= 0px);' },
        '/two.css': {
          type: 'text/css',
          body: '#imported{width:80%}@media (601px <= width < 1301px){#imported{width:300px}}',
        },
      },
    );
    expect(curveOf(result, '#imported')).toEqual([
      { from: 320, to: 600, a: 0.8, b: 0 },
      { from: 601, to: 1300, a: 0, b: 300 },
      { from: 1301, to: 2560, a: 0.8, b: 0 },
    ]);
    expect(curveOf(result, '#nested')).toEqual([
      { from: 320, to: 799, a: 0, b: 100 },
      { from: 800, to: 2560, a: 0, b: 400 },
    ]);
    // Nothing tells where the maximum begins to hold: the sweep finds it by itself.
    const fluid = curveOf(result, '#fluid')!;
    expect(fluid).toHaveLength(2);
    for (const width of [320, 777, 1240, 1245, 2000])
      expect(slotWidthAt(fluid, width)).toBeCloseTo(Math.min(width / 2 - 20, 601), 0);
  });

  it('reads the breakpoints of a style sheet of another origin, and of a shadow root', async () => {
    // So near to each other that no grid finds them.
    const narrow = (selector: string) =>
      `${selector}{width:90px}@media (641px <= width <= 652px){${selector}{width:45px}}`;
    const other = await serve({ '/other.css': { type: 'text/css', body: narrow('#linked') } });
    const { result } = await visitSwept(
      `<link rel="stylesheet" href="${other.origin}/other.css"><img id="linked" src="/a.png">
       <div id="kite"></div><script>
         kite.attachShadow({ mode: 'open' }).innerHTML = '<style>${narrow('img')}</style><img src="/a.png">';
       </script>`,
    );
    expect(result.curves).toHaveLength(2);
    for (const { pieces } of result.curves)
      expect(pieces).toEqual([
        { from: 320, to: 640, a: 0, b: 90 },
        { from: 641, to: 652, a: 0, b: 45 },
        { from: 653, to: 2560, a: 0, b: 90 },
      ]);
  });

  it('goes up to the widest window, however many breakpoints there are', async () => {
    const many = (count: number) =>
      Array.from({ length: count }, (_, at) => {
        const width = 321 + (at * 2230) / count;
        return `@media (min-width:${width}px){p{order:${at}}}`;
      }).join('');
    for (const count of [70, 700]) {
      const { result } = await visitSwept(
        `<style>img{width:50%}${many(count)}</style><img id="half" src="/a.png">`,
      );
      expect(curveOf(result, '#half')).toEqual([{ from: 320, to: 2560, a: 0.5, b: 0 }]);
    }
  });

  it('looks closely where containers are asked for their width', async () => {
    const { result } = await visitSwept(
      `<style>main { container-type: inline-size } #held { width: 90px }
         @container (700px <= width <= 780px) { #held { width: 45px } }
       </style><main><img id="held" src="/a.png"></main>`,
    );
    expect(curveOf(result, '#held')).toEqual([
      { from: 320, to: 699, a: 0, b: 90 },
      { from: 700, to: 780, a: 0, b: 45 },
      { from: 781, to: 2560, a: 0, b: 90 },
    ]);
  });

  it('says where a slot is not shown', async () => {
    const { result } = await visitSwept(
      '<style>@media (max-width:900px){#wide{display:none}}</style><img id="wide" src="/a.png" width="50">',
    );
    expect(curveOf(result, '#wide')).toEqual([{ from: 901, to: 2560, a: 0, b: 50 }]);
  });

  it('measures what a slot comes to, and no size on the way there', async () => {
    const { result } = await visitSwept(
      `<style>
         .slow { width: 100px; transition: width 5s ease-in }
         @media (min-width: 992px) { .slow { width: 300px } }
         @media (min-width: 1500px) { .slow { width: 40% } }
       </style><img id="getAnimations" name="getAnimations" class="slow" src="/a.png"><div id="host"></div>
       <script>
         const inside = document.getElementById('host').attachShadow({ mode: 'open' });
         inside.innerHTML = '<style>' + document.querySelector('style:last-of-type').textContent + '</style><img class="slow" src="/a.png">';
         // Has just begun when the page is measured.
         addEventListener('load', () => document.querySelectorAll('img').forEach((image) => (image.style.width = '')));
         document.querySelector('img').style.width = '20px';
       </script>`,
    );
    expect(result.placements.map(({ slot }) => slot.width)).toEqual([300, 300]);
    expect(result.curves).toHaveLength(2);
    for (const { pieces } of result.curves)
      expect(pieces).toEqual([
        { from: 320, to: 991, a: 0, b: 100 },
        { from: 992, to: 1499, a: 0, b: 300 },
        { from: 1500, to: 2560, a: 0.4, b: 0 },
      ]);
  });

  it('outlives a transition that a script has taken the end of', async () => {
    const { result } = await visitSwept(
      `<style>#endless { width: 100px; transition: width 5s }</style>
       <img id="endless" src="/a.png"><img id="steady" src="/a.png" style="width:25%">
       <script>
         const endless = document.getElementById('endless');
         endless.addEventListener('transitionrun', () =>
           endless.getAnimations()[0].effect.updateTiming({ iterations: Infinity }));
         addEventListener('load', () => { endless.getBoundingClientRect(); endless.style.width = '300px' });
       </script>`,
    );
    expect(result.error).toBeNull();
    expect(result.placements).toHaveLength(2);
    expect(curveOf(result, '#steady')).toEqual([{ from: 320, to: 2560, a: 0.25, b: 0 }]);
  });

  it('changes no other measurement, though the page answers by fetching', async () => {
    const { result, asked, visitor, origin } = await visitSwept(
      `<picture><source media="(max-width:700px)" srcset="/b.png"><img id="choice" src="/a.png"></picture>
       <script>
         // The sweep cannot be over before this answer has come, however busy the machine is.
         addEventListener('resize', () => { const ask = new XMLHttpRequest(); ask.open('GET', '/b.png', false); ask.send() }, { once: true })
       </script>`,
    );
    expect(asked).toContain('/b.png');
    expect(result.images.map(({ url }) => url)).toEqual([`${origin}/a.png`]);
    expect(result.placements).toHaveLength(1);
    expect(result.placements[0]).toMatchObject({
      url: `${origin}/a.png`,
      slot: { width: 90, height: 60 },
    });
    const again = await visitor.visit(`${origin}/`);
    expect(again.bytesByType.image).toBe(result.bytesByType.image);
    expect(again.placements).toEqual(result.placements);
  });

  it('is not confused by a page that rebuilds itself when it is resized', async () => {
    const { result } = await visitSwept(
      `<img id="steady" src="/a.png" style="width:25%"><div id="box"><img class="gone" src="/a.png"></div>
       <script>addEventListener('resize', () => { document.getElementById('box').innerHTML = '<img src="/a.png"><img src="/a.png">' })</script>`,
    );
    expect(result.error).toBeNull();
    expect(curveOf(result, '#steady')).toEqual([{ from: 320, to: 2560, a: 0.25, b: 0 }]);
    const gone = result.curves.find(({ selector }) => selector.startsWith('#box'));
    expect(gone?.pieces.every(({ a, b }) => a === 0 && b === 90) ?? true).toBe(true);
  });

  it('begins with a grid and both sides of every breakpoint', () => {
    const widths = firstWidths([760, 47.99 * 16, 5, 9_999], { gap: 64, parts: 1 });
    for (const width of [320, 759, 760, 761, 767, 768, 2560]) expect(widths).toContain(width);
    expect(widths).toEqual([...widths].sort((a, b) => a - b));
    expect(Math.min(...widths)).toBe(sweepRange.from);
    expect(Math.max(...widths)).toBe(sweepRange.to);
    // What is between two breakpoints is seen in parts, so that a bend there shows.
    expect(firstWidths([400, 1000, 1050], { gap: 256, parts: 3 })).toEqual([
      320, 360, 399, 400, 401, 600, 800, 999, 1000, 1001, 1049, 1050, 1051, 1303, 1554, 1806, 2057,
      2309, 2560,
    ]);
    expect(firstWidths([760, 9_999], { gap: Infinity, parts: 0 })).toEqual([759, 760, 761]);
  });
});
