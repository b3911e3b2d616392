import { weatherHost } from './hosts.js';
import { opening } from './layout.js';
import type { Page } from './layout.js';

/** Pictures that are known by their size: see the catalogue. */
const hall = '/img/museum/hall.jpg';
const plate = '/img/museum/plate.png';
const dense = '/img/museum/plate-2x.png';
const tile = '/img/museum/tile.png';

interface Exhibit {
  readonly title: string;
  readonly body: string;
}

/**
 * One exhibit for every way in which a page can show an image. Each has a size that does not depend on
 * the view, so that what is measured can be held against what stands here.
 */
const exhibits: readonly Exhibit[] = [
  { title: 'Covered', body: `<img id="cover" src="${hall}" alt="The hall">` },
  { title: 'Contained', body: `<img id="contain" src="${hall}" alt="The hall">` },
  { title: 'Stretched', body: `<img id="fill" src="${hall}" alt="">` },
  { title: 'As it is', body: `<img id="none" src="${plate}">` },
  { title: 'Never enlarged', body: `<img id="scale-down" src="${tile}">` },
  { title: 'Doubled', body: `<img id="zoomed" src="${plate}" width="150" height="100">` },
  {
    title: 'Lying on its side',
    body: `<img id="turned" src="/img/museum/turned.jpg" width="100" height="150">`,
  },
  { title: 'Moving', body: `<img id="reel" src="/img/museum/reel.gif" width="120" height="120">` },
  { title: 'By density', body: `<img id="by-density" srcset="${plate} 1x, ${dense} 2x" alt="">` },
  {
    title: 'By width',
    body: `<picture><source media="(min-width: 10px)" type="image/png" srcset="${plate} 300w, ${dense} 600w" sizes="200px"><img id="by-width" src="${hall}" width="200" decoding="async" fetchpriority="high"></picture>`,
  },
  {
    title: 'A button',
    body: `<form><input id="button" type="image" src="${plate}" alt="Enter" width="90" height="60"></form>`,
  },
  { title: 'A film', body: `<video id="film" poster="${hall}" width="240" height="240"></video>` },
  {
    title: 'In a drawing',
    body: `<svg width="220" height="160"><image id="drawn" href="${hall}" x="10" y="10" width="180" height="140" preserveAspectRatio="xMidYMid slice"/></svg>`,
  },
  {
    title: 'An object',
    body: `<object id="thing" type="image/png" data="${plate}" width="150" height="100"></object>`,
  },
  {
    title: 'Embedded',
    body: `<embed id="embedded" type="image/png" src="${plate}" width="120" height="80">`,
  },
  { title: 'Painted', body: '<div id="painted" class="box"></div>' },
  { title: 'In layers', body: '<div id="layers" class="box"></div>' },
  { title: 'Tiled', body: '<div id="tiled" class="box"></div>' },
  { title: 'By the screen', body: '<div id="image-set" class="box"></div>' },
  { title: 'Framed', body: '<div id="framed" class="box"></div>' },
  { title: 'Masked', body: '<div id="masked" class="box"></div>' },
  { title: 'Listed', body: '<ul><li id="listed">a bullet</li></ul>' },
  { title: 'Before', body: '<p id="before">after a picture</p>' },
  { title: 'Behind', body: '<p id="behind">before a background</p>' },
  { title: 'Replaced', body: '<div id="replaced"></div>' },
  { title: 'Pointed at', body: '<p id="pointed">move the mouse here</p>' },
  { title: 'In the shadow', body: '<div id="shadow"></div>' },
  {
    title: 'In a frame',
    body: '<iframe id="near" src="/museum/frame/" width="260" height="180"></iframe>',
  },
  {
    title: "In a stranger's frame",
    body: `<iframe id="far" src="http://${weatherHost}/frame/" width="260" height="180"></iframe>`,
  },
  { title: 'Hidden', body: `<img id="hidden" src="/img/museum/reel.gif">` },
  { title: 'Magnified', body: `<img id="magnified" src="${plate}" width="60" height="40">` },
  { title: 'Placed within', body: `<img id="placed" src="${hall}" alt="">` },
  { title: 'Marked', body: '<ul><li id="marked">a marker</li></ul>' },
  {
    title: 'Moving, and modern',
    body: '<img id="reel-webp" src="/img/museum/reel.webp" width="100" height="100">',
  },
  {
    title: 'Moving, and newer',
    body: '<img id="reel-avif" src="/img/museum/reel.avif" width="96" height="96">',
  },
  {
    title: 'A drawing',
    body: '<img id="compass" src="/museum/compass.svg" width="72" height="72">',
  },
  {
    title: 'Moved away',
    body: '<img id="moved" src="/museum/old-plate" width="90" height="60">',
  },
  {
    title: 'As the browser likes it',
    body: '<img id="negotiated" src="/museum/poster" width="80" height="80">',
  },
  {
    title: 'Under a false name',
    body: '<img id="false-name" src="/museum/false-name.png" width="60" height="40">',
  },
  { title: 'Gone', body: '<img id="gone" src="/museum/gone.png" width="50" height="50" alt="">' },
  { title: 'Lent by a script', body: '<img id="lent" alt="" width="64" height="64">' },
  { title: 'In the document', body: '<img id="inline" alt="" width="30" height="20">' },
];

/** Asked for ahead of everything, and then used by nothing. */
const preload = '<link rel="preload" as="image" href="/img/museum/spare.png">';

const css = `
.exhibits { display: grid; grid-template-columns: repeat(auto-fill, minmax(300px, 1fr)); gap: 28px; }
.exhibits h3 { margin: 0 0 10px; } .exhibits section { background: #fffdf7; border: 1px solid var(--line); border-radius: 14px; padding: 18px; min-height: 150px; overflow: hidden; }
.exhibits img { max-width: none; } .box { width: 200px; height: 100px; }
#cover { width: 200px; height: 200px; object-fit: cover; } #contain { width: 200px; height: 200px; object-fit: contain; } #fill { width: 200px; height: 50px; }
#none { width: 100px; height: 100px; object-fit: none; } #scale-down { width: 200px; height: 200px; object-fit: scale-down; } #zoomed { transform: scale(2); transform-origin: 0 0; margin-bottom: 100px; }
#painted { background: url(${hall}) center / cover; } #layers { background: url(${tile}) 0 0 / 32px auto no-repeat, linear-gradient(#fff, #ccc), url(${plate}) right / 50% 50px no-repeat; }
#tiled { background: url(${tile}); padding: 10px; } #image-set { background-image: image-set(url(${plate}) 1x, url(${dense}) 2x); background-size: contain; }
#framed { border: 20px solid transparent; border-image: url(${tile}) 16; width: 100px; height: 40px; box-sizing: content-box; } #masked { background: var(--sea); mask-image: url(${plate}); mask-size: 90px 60px; }
#listed { list-style-image: url(${tile}); } #before::before { content: url(${tile}); } #behind::after { content: ""; display: block; width: 90px; height: 60px; background: url(${plate}) 0 0 / 100% 100%; }
#magnified { zoom: 1.5; } #placed { width: 120px; height: 60px; object-fit: cover; object-position: right 10px bottom; } #marked::marker { content: url(${tile}); }
#replaced { content: url(${plate}); width: 60px; height: 40px; } #pointed { cursor: url(${tile}), auto; } #hidden { display: none; } iframe { border: 0; }
`;

/** Makes what markup cannot: a shadow root, a canvas, a picture that waits for the scroll. */
const script = `
var host = document.getElementById('shadow').attachShadow({ mode: 'open' });
host.innerHTML = '<img id="inner" src="${plate}" width="80" height="53">';
var canvas = new Image(); canvas.onload = function () { document.createElement('canvas').getContext('2d').drawImage(canvas, 0, 0); }; canvas.src = '/img/museum/attic.png';
document.getElementById('inline').src = 'data:image/svg+xml,' + encodeURIComponent('<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 3 2"><path d="M0 0h3v2z"/></svg>');
fetch('/img/museum/tile.png').then(function (answer) { return answer.blob(); }).then(function (blob) { document.getElementById('lent').src = URL.createObjectURL(blob); });
new IntersectionObserver(function (seen, observer) {
  if (!seen[0].isIntersecting) return;
  observer.disconnect();
  var late = new Image(60, 40); late.id = 'late'; late.src = '${dense}'; late.alt = 'Late'; seen[0].target.append(late);
}).observe(document.getElementById('waiting'));
`;

export const museum: Page = {
  path: '/museum/',
  title: 'The kite museum',
  css,
  body: `${preload}${opening(hall, 'The hall of the museum', 'The kite museum', 'One of every kind, each in a case of its own.')}<main><div class="exhibits">${exhibits
    .map(({ title, body }) => `<section><h3>${title}</h3>${body}</section>`)
    .join(
      '',
    )}</div><div style="height:1600px"></div><section id="waiting"></section><p><img id="lazy" loading="lazy" src="${dense}" width="150" height="100" alt="Lazy"></p></main><script>${script}</script>`,
};

/** What stands in the museum's frames. */
export const museumFrame: Page = {
  path: '/museum/frame/',
  title: 'A frame',
  bare: true,
  body: `<style>body{margin:0}</style><img id="within" src="${plate}" width="90" height="60" alt="Within a frame">`,
};
