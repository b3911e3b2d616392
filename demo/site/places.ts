import { opening } from './layout.js';
import type { Page } from './layout.js';

const shots = [
  ...Array.from({ length: 8 }, (_, index) => `/img/gallery/DSC0${2210 + index * 7}.jpg`),
  '/img/programme/IMG_0412.jpg',
  '/img/programme/IMG_0431.jpg',
  '/img/travel/ferry.jpg',
  '/img/journal/wind-2880.jpg',
];

/** The gallery, in which every thumbnail is the whole original. */
export const gallery: Page = {
  path: '/gallery/',
  title: 'Gallery',
  body: `<main><h1>Gallery</h1><p class="lead">Last year, as the people on the beach saw it.</p><div class="thumbs">${shots
    .map((shot) => `<a href="${shot}"><img src="${shot}"></a>`)
    .join('')}</div></main>`,
};

/** How to get there: the page whose answer takes its time. */
export const gettingThere: Page = {
  path: '/getting-there/',
  title: 'Getting there',
  delay: 700,
  body: `${opening('/img/travel/ferry.jpg', 'The bay from the ferry', 'Getting there', 'By boat if you can. On foot if you like.')}<main class="columns"><div><h2>By ferry</h2><p>From Marram Quay every half hour, nine until dusk. Kites under two metres travel free.</p><h2>On foot</h2><p>The dune path starts behind the station. Follow the white posts; it takes forty minutes, or an hour with a kite.</p><h2>By road</h2><p>There is one road, and it is full. Leave the car at the upper fields (the purple pin).</p><p>On the way, the <a href="/museum/">kite museum</a> shows one of every kind.</p></div><aside><img class="map" src="/img/travel/map.png" alt="Map of the bay with four pins"><p><b style="color:#e4572e">●</b> Launch field <b style="color:#17637a">●</b> Ferry <b style="color:#c3305a">●</b> Striped tent <b style="color:#3a2c52">●</b> Upper fields</p></aside></main>`,
};
