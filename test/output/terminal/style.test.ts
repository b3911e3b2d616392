import { describe, expect, it } from 'vitest';
import { joined, table, wrapped } from '../../../src/output/terminal/style.js';

describe('a sentence', () => {
  const sentence = 'A kite that is 12 m wide needs a beach without trees.';

  it('is broken between words where the screen is narrower, each line as far in as the first', () => {
    expect(wrapped(sentence, { width: 40 }, 10)).toBe(
      ['A kite that is 12 m wide needs', 'a beach without trees.'].join('\n          '),
    );
  });

  it('is not broken between a number and what it counts', () => {
    const inLines = wrapped('A light page has under 500 kB in all.', { width: 26 });
    expect(inLines).toBe('A light page has under\n500 kB in all.');
  });

  it('stays as it is where there is room', () => {
    expect(wrapped(sentence, { width: sentence.length })).toBe(sentence);
  });

  it('keeps words that are longer than the screen whole', () => {
    const address = `http://brindlebay.test/${'kites/'.repeat(20)}`;
    expect(wrapped(`See ${address} for more.`, { width: 40 })).toBe(`See\n${address}\nfor more.`);
  });
});

describe('words that belong together', () => {
  it('stand on as many lines as it takes, and a line that goes on ends with a dot', () => {
    const screen = { width: 16, colour: false };
    expect(joined(['kites (12)', 'tails'], { ...screen, width: 40 })).toBe('kites (12) · tails');
    expect(joined(['kites (12)', 'tails', 'lines'], screen)).toBe('kites (12) ·\ntails · lines');
  });
});

describe('a table', () => {
  const columns = [
    { title: 'median' },
    { title: 'percent', spare: true },
    { title: 'verdict', wraps: true, least: 16 },
  ];
  const rows = [
    ['largest contentful paint', '−3.1 %', 'not clear yet; 12 runs would tell'],
    ['load', '−20.4 %', 'faster'],
  ];
  const drawnAt = (width: number) => table({ width, colour: false }, columns, rows);

  it('breaks sentences into lines where the screen is narrow, before it leaves anything out', () => {
    expect(drawnAt(55)).toBe(
      [
        'median                    percent  verdict',
        'largest contentful paint  −3.1 %   not clear yet;',
        '                                   12 runs would tell',
        'load                      −20.4 %  faster',
      ].join('\n'),
    );
  });

  it('shows names whole where there is room, and leaves columns out before they tell little', () => {
    const named = [
      { title: 'image', least: 20 },
      { title: 'intrinsic', spare: true },
      { title: 'bytes' },
    ];
    const images = [['/img/gallery/kites-over-the-bay.jpg', '3000×2000', '1.19 MB']];
    const widthOf = (width: number) =>
      table({ width, colour: false }, named, images).split('\n')[1];
    expect(widthOf(60)).toBe('/img/gallery/kites-over-the-bay.jpg  3000×2000  1.19 MB');
    expect(widthOf(44)).toBe('/img/gal…ver-the-bay.jpg  3000×2000  1.19 MB');
    expect(widthOf(36)).toBe('/img/gall…-over-the-bay.jpg  1.19 MB');
  });

  it('keeps sentences whole on any screen', () => {
    for (let width = 30; width <= 100; width++) {
      const words = drawnAt(width).split(/\s+/);
      for (const word of 'not clear yet; 12 runs would tell'.split(' '))
        expect(words).toContain(word);
    }
  });
});
