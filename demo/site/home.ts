import { weatherHost } from './hosts.js';
import { card } from './layout.js';
import type { Page } from './layout.js';

const slides = [
  ['Three days of wind', 'Four hundred kites, one long beach, and nobody in a hurry.'],
  ['Stay for the evening', 'When the light goes gold, the big ones come out.'],
  ['Walk the dune path', 'Twenty minutes from the ferry, with the festival in sight.'],
  ['Whatever the weather', 'Grey days are flying days. Bring a coat.'],
  ['The night flight', 'Lanterns aloft, lights out along the shore.'],
] as const;

const icons = [
  ['wind', 'Onshore wind', 'Steady from noon on most September days.'],
  ['ferry', 'By boat', 'Every half hour from Marram Quay.'],
  ['tent', 'Workshops', 'Sew your own in the striped tent.'],
  ['moon', 'After dark', 'Saturday, from half past nine.'],
] as const;

function slide([title, words]: readonly [string, string], index: number): string {
  return `<figure><img src="/img/hero/banner-${index + 1}.jpg" alt="${title}"><figcaption><h2>${title}</h2><p>${words}</p></figcaption></figure>`;
}

function icon([name, title, words]: readonly [string, string, string]): string {
  return `<li><img src="/img/icons/${name}.svg" alt="" width="40" height="40"><h3>${title}</h3><p>${words}</p></li>`;
}

export const home: Page = {
  path: '/',
  title: 'Welcome',
  body: `<section class="slider"><div class="track">${slides.map(slide).join('')}</div><div class="dots"></div></section>
<main>
  <section class="intro"><div><p class="when">11 – 13 September</p><h1>The whole bay looks up.</h1><p>Every year in the second week of September the people of Brindle Bay put down what they are doing and go down to the sand. So should you.</p></div><img class="sock" src="/img/site/windsock.gif" alt="A windsock, swinging"></section>
  <ul class="icons">${icons.map(icon).join('')}</ul>
  <h2>What is on</h2>
  <div class="cards">
    ${card('/programme/saturday/', '/img/programme/IMG_0412.jpg', 'Kites over the morning beach', 'Saturday', 'Launches from ten, rookery battles at three.')}
    ${card('/programme/sunday/', '/img/programme/IMG_0431.jpg', 'A single kite over the dunes', 'Sunday', 'Families, fighters, and the mass ascent.')}
    ${card('/programme/night-flight/', '/img/programme/IMG_0477.jpg', 'Lit kites at night', 'Night flight', 'Lanterns aloft until the tide turns.')}
  </div>
  <section class="wide"><img src="/img/site/bay-panorama.jpg" alt="The bay at evening, the whole length of it"></section>
  <h2>From the journal</h2>
  <div class="pair">
    <a class="story" href="/journal/letters-from-the-launch-field/"><img src="/img/journal/launch-field.png" alt="A kite above the launch field"><div><h3>Letters from the launch field</h3><p>What people wrote on the back of last year's entry forms.</p></div></a>
    <aside class="partner"><p>Our neighbours</p><img src="http://${weatherHost}/partners/partner.jpg" alt="The beach of our neighbours"><p>Gull Post keeps an eye on the weather for us.</p></aside>
  </div>
</main>`,
};
