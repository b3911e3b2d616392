import { opening } from './layout.js';
import type { Page } from './layout.js';

const makers = [
  [
    'oda-wrenfield',
    'Oda Wrenfield',
    'oda-wrenfield.jpg',
    'Sews deltas from old tents, and says the mud is what makes them fly.',
  ],
  [
    'tomas-quill',
    'Tomas Quill',
    'tomas-quill.webp',
    'Flat kites, hand-painted, never two alike. Signs them on the inside.',
  ],
  [
    'the-sandlark-twins',
    'The Sandlark twins',
    'sandlark-twins.jpg',
    'One builds, one flies, and nobody has found out which is which.',
  ],
  [
    'ilse-marram',
    'Ilse Marram',
    'ilse-marram.webp',
    'Box kites in spruce and silk, after drawings that her grandmother left.',
  ],
] as const;

export const makersPages: readonly Page[] = [
  {
    path: '/makers/',
    title: 'Kite makers',
    body: `${opening('/img/makers/sailcloth-1.jpg', 'Sewn sailcloth', 'Kite makers', 'Four workshops open their doors.')}<main><ul class="people">${makers
      .map(
        ([slug, name, file, words]) =>
          `<li><a href="/makers/${slug}/"><img src="/img/makers/${file}"><h3>${name}</h3></a><p>${words}</p></li>`,
      )
      .join('')}</ul></main>`,
  },
  ...makers.map(([slug, name, file, words], index): Page => ({
    path: `/makers/${slug}/`,
    title: name,
    body: `<main class="maker"><img class="face" src="/img/makers/${file}" alt="${name} at work"><div><p class="when">Workshop ${index + 1}</p><h1>${name}</h1><p class="lead">${words}</p><p>The workshop is open on all three days from eleven. You may touch everything that is not pinned, and ask anything except what a kite costs; that depends on who is asking and what they mean to do with it.</p><p>What is made here goes up on Saturday afternoon, whatever the wind has to say about it.</p><img class="detail" src="/img/makers/sailcloth-${1 + (index % 2)}.jpg" alt="Sailcloth, sewn by ${name}"></div></main>`,
  })),
];
