import type { Page } from './layout.js';

interface Article {
  readonly slug: string;
  readonly title: string;
  readonly lead: string;
  /** The picture as the page writes it, and as the list of articles shows it. */
  readonly picture: string;
  readonly thumbnail: string;
}

/** Says that the picture fills the window; it never does. */
const lyingSizes =
  '<img src="/img/journal/wind-960.jpg" srcset="/img/journal/wind-480.jpg 480w, /img/journal/wind-960.jpg 960w, /img/journal/wind-1920.jpg 1920w, /img/journal/wind-2880.jpg 2880w" sizes="100vw" alt="Evening over the dunes">';

const articles: readonly Article[] = [
  {
    slug: 'how-the-bay-got-its-wind',
    title: 'How the bay got its wind',
    lead: 'There is a gap in the headland that nobody dug.',
    picture: lyingSizes,
    thumbnail: '/img/journal/wind-2880.jpg',
  },
  {
    slug: 'sewing-a-forty-metre-tail',
    title: 'Sewing a forty-metre tail',
    lead: 'It took nine weeks, and the hall of the rowing club.',
    picture: '<img src="/img/journal/the-long-tail.jpg" alt="A tail in many colours">',
    thumbnail: '/img/journal/the-long-tail.jpg',
  },
  {
    slug: 'rain-on-sunday',
    title: 'Rain on Sunday',
    lead: 'A short defence of bad weather.',
    picture: '<img src="/img/journal/rain-on-sunday.png" alt="Kites under a grey sky">',
    thumbnail: '/img/journal/rain-on-sunday.png',
  },
  {
    slug: 'letters-from-the-launch-field',
    title: 'Letters from the launch field',
    lead: "What people wrote on the back of last year's entry forms.",
    picture: '<img src="/img/journal/launch-field.png" alt="A kite above the launch field">',
    thumbnail: '/img/journal/launch-field.png',
  },
];

const paragraphs = [
  'The old people say that you could hear it before you felt it: a hum in the wires of the drying racks, then the gulls standing still in the air as if someone had pinned them there.',
  'We asked everyone who would stop. The harbour master said it was the water. The baker said it was the hill. The child with the red diamond said it was because of the kites, and went back to flying.',
  'By four the sand was full. Nobody had counted, and nobody meant to. There were kites as small as a hand and one that needed a tractor, and between them the whole of the sky was spoken for.',
  'If you come next year, come early, bring more line than you think, and leave the afternoon empty.',
];

export const journal: readonly Page[] = [
  {
    path: '/journal/',
    title: 'Journal',
    body: `<main><h1>Journal</h1><p class="lead">Written between tides.</p><ul class="stories">${articles
      .map(
        ({ slug, title, lead, thumbnail }) =>
          `<li><a href="/journal/${slug}/"><img src="${thumbnail}" alt="${title}"><div><h2>${title}</h2><p>${lead}</p></div></a></li>`,
      )
      .join('')}</ul></main>`,
  },
  ...articles.map(({ slug, title, lead, picture }): Page => ({
    path: `/journal/${slug}/`,
    title,
    body: `<main class="article"><p class="when"><a href="/journal/">Journal</a></p><h1>${title}</h1><p class="lead">${lead}</p><figure>${picture}</figure>${paragraphs.map((text) => `<p>${text}</p>`).join('')}</main>`,
  })),
];
