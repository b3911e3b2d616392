import { card, opening } from './layout.js';
import type { Page } from './layout.js';

interface Day {
  readonly slug: string;
  readonly name: string;
  readonly picture: string;
  readonly words: string;
  readonly events: readonly (readonly [string, string, string])[];
}

const days: readonly Day[] = [
  {
    slug: 'saturday',
    name: 'Saturday',
    picture: '/img/programme/IMG_0412.jpg',
    words: 'The first launch is at ten, the last when the arms give out.',
    events: [
      ['10:00', 'Opening launch', 'All makers at once, from the north end.'],
      ['12:30', 'Box kites, old and new', 'Ilse Marram shows eleven of them.'],
      ['15:00', 'The rookery battle', 'Last tail flying wins a ham.'],
      ['18:00', 'Slow hour', 'Nothing under four metres. Bring a chair.'],
    ],
  },
  {
    slug: 'sunday',
    name: 'Sunday',
    picture: '/img/programme/IMG_0431.jpg',
    words: 'The day for families, and for the mass ascent at three.',
    events: [
      ['10:30', 'Make and fly', 'Paper, string, and somebody patient.'],
      ['13:00', 'Fighters', 'Glass line only in the roped field.'],
      ['15:00', 'Mass ascent', 'Everybody. Really everybody.'],
      ['17:00', 'The counting', 'How many came down where.'],
    ],
  },
  {
    slug: 'night-flight',
    name: 'Night flight',
    picture: '/img/programme/IMG_0477.jpg',
    words: 'Saturday at half past nine. Lights out along the shore.',
    events: [
      ['20:30', 'Lamps are lit', 'At the striped tent. Hands off the wicks.'],
      ['21:30', 'First light up', 'The Sandlark twins, as ever.'],
      ['22:15', 'The long tail', 'Forty metres, two hundred lamps.'],
    ],
  },
];

function dayPage({ slug, name, picture, words, events }: Day): Page {
  const rows = events.map(
    ([time, title, text]) =>
      `<li><time>${time}</time><div><h3>${title}</h3><p>${text}</p></div></li>`,
  );
  return {
    path: `/programme/${slug}/`,
    title: name,
    body: `${opening(picture, name, name, words)}<main class="columns"><ol class="events">${rows.join('')}</ol><aside><img class="poster" src="/img/site/poster.png" alt="This year's poster"><p>The poster is for sale at the striped tent, while it lasts.</p></aside></main>`,
  };
}

export const programme: readonly Page[] = [
  {
    path: '/programme/',
    title: 'Programme',
    body: `${opening('/media/2026/panorama-copy.jpg', 'The bay at evening', 'Programme', 'Three days, and what happens on them.')}<main><div class="cards">${days
      .map(({ slug, name, picture, words }) =>
        card(`/programme/${slug}/`, picture, name, name, words),
      )
      .join('')}</div></main>`,
  },
  ...days.map(dayPage),
];
