import { tagHost } from './hosts.js';

/** The style sheet that every page links to; it pulls in a second one, and is sent uncompressed. */
export const siteCss = `@import url("/assets/type.css");
:root { --ink: #1d2b36; --sea: #17637a; --deep: #0f3a4a; --sail: #e4572e; --sun: #f6c94c; --sand: #f8f2e4; --line: #e3d8be; }
* { box-sizing: border-box; }
body { margin: 0; color: var(--ink); background: var(--sand); }
img { display: block; max-width: 100%; }
main { max-width: 1120px; margin: 0 auto; padding: 40px 24px 64px; }
.top { display: flex; align-items: center; gap: 28px; padding: 14px 32px; background: #fffdf7; border-bottom: 3px solid var(--sun); }
.brand { display: flex; align-items: center; gap: 10px; text-decoration: none; color: var(--deep); font-weight: 700; font-size: 20px; line-height: 1; }
.brand small { display: block; font-size: 12px; letter-spacing: .14em; text-transform: uppercase; color: var(--sail); margin-top: 4px; font-weight: 600; }
nav { display: flex; gap: 22px; margin-left: auto; }
nav a { color: var(--deep); text-decoration: none; padding: 6px 0; border-bottom: 2px solid transparent; }
nav a:hover, nav a[aria-current] { border-color: var(--sail); }
.ticket { background: var(--sail); color: #fff; padding: 10px 20px; border-radius: 999px; text-decoration: none; font-weight: 600; }
.slider { position: relative; overflow: hidden; background: var(--deep); }
.track { display: flex; transition: transform .8s ease; }
.track figure { position: relative; flex: 0 0 100%; margin: 0; height: 480px; }
.track img { width: 100%; height: 100%; object-fit: cover; }
figcaption { position: absolute; left: 0; right: 0; bottom: 0; padding: 90px 48px 40px; color: #fff; background: linear-gradient(transparent, rgba(9, 30, 40, .82)); }
figcaption h2 { font-size: 46px; margin: 0 0 6px; color: #fff; }
figcaption p { margin: 0; font-size: 19px; }
.dots { position: absolute; right: 40px; bottom: 34px; display: flex; gap: 8px; }
.dots button { width: 12px; height: 12px; padding: 0; border: 2px solid #fff; border-radius: 50%; background: transparent; }
.dots button[aria-current] { background: var(--sun); }
.intro { display: flex; gap: 48px; align-items: center; justify-content: space-between; }
.intro h1 { margin: 0 0 12px; }
.intro p { max-width: 60ch; }
.sock { width: 120px; height: 120px; border-radius: 50%; }
.when { color: var(--sail); font-weight: 700; letter-spacing: .06em; margin: 0 0 8px; }
.when a { color: inherit; }
.icons { list-style: none; margin: 36px 0; padding: 26px; display: grid; grid-template-columns: repeat(4, 1fr); gap: 24px; background: #fffdf7; border-radius: 14px; border: 1px solid var(--line); }
.icons h3 { margin: 10px 0 2px; } .icons p { margin: 0; }
.cards { display: grid; grid-template-columns: repeat(3, 1fr); gap: 24px; }
.card { background: #fffdf7; border-radius: 14px; overflow: hidden; text-decoration: none; color: inherit; border: 1px solid var(--line); }
.card img { width: 100%; height: 210px; object-fit: cover; }
.card div { padding: 16px 20px 20px; } .card h3 { margin: 0 0 4px; color: var(--sea); } .card p { margin: 0; }
.wide { margin: 56px 0 40px; } .wide img { width: 100%; border-radius: 14px; }
.pair { display: grid; grid-template-columns: 2fr 1fr; gap: 24px; }
.story { display: flex; gap: 22px; align-items: center; min-height: 222px; background: #fffdf7; border: 1px solid var(--line); border-radius: 14px; overflow: hidden; text-decoration: none; color: inherit; }
.story img { width: 300px; height: 100%; object-fit: cover; } .story h3 { margin: 0 0 6px; color: var(--sea); }
.partner { background: #e6efe9; border-radius: 14px; padding: 16px 20px; } .partner p { margin: 0 0 8px; font-size: 14px; } .partner img { width: 240px; border-radius: 8px; margin-bottom: 8px; }
.opening { position: relative; height: 340px; background: var(--deep); } .opening img { width: 100%; height: 100%; object-fit: cover; object-position: 50% 30%; }
.opening div { position: absolute; left: 0; right: 0; bottom: 0; padding: 90px 10% 26px; color: #fff; background: linear-gradient(transparent, rgba(9, 30, 40, .8)); } .opening h1 { margin: 0; color: #fff; } .opening p { margin: 4px 0 0; font-size: 19px; }
.columns { display: grid; grid-template-columns: 3fr 2fr; gap: 48px; }
.events { list-style: none; margin: 0; padding: 0; } .events li { display: flex; gap: 24px; padding: 18px 0; border-bottom: 1px solid var(--line); } .events time { color: var(--sail); font-weight: 700; width: 64px; } .events h3 { margin: 0 0 2px; } .events p { margin: 0; }
.poster { width: 300px; border-radius: 8px; } .map { width: 100%; border-radius: 14px; border: 1px solid var(--line); }
.people { list-style: none; padding: 0; margin: 0; display: grid; grid-template-columns: repeat(4, 1fr); gap: 28px; text-align: center; } .people img { width: 180px; height: 180px; border-radius: 50%; object-fit: cover; margin: 0 auto; } .people a { color: var(--sea); text-decoration: none; }
.maker { display: grid; grid-template-columns: 440px 1fr; gap: 48px; } .face { width: 440px; height: 520px; object-fit: cover; border-radius: 14px; } .detail { width: 280px; border-radius: 10px; margin-top: 20px; } .lead { font-size: 20px; color: var(--sea); }
.stories { list-style: none; padding: 0; display: grid; gap: 22px; } .stories a { display: flex; gap: 26px; align-items: center; color: inherit; text-decoration: none; background: #fffdf7; border: 1px solid var(--line); border-radius: 14px; overflow: hidden; } .stories img { width: 260px; height: 180px; object-fit: cover; } .stories h2 { margin: 0 0 4px; color: var(--sea); }
.article { max-width: 720px; } .article figure { margin: 24px 0; } .article figure img { width: 100%; border-radius: 12px; }
.thumbs { display: grid; grid-template-columns: repeat(4, 1fr); gap: 14px; } .thumbs img { width: 100%; height: 180px; object-fit: cover; border-radius: 10px; }
footer { display: flex; gap: 48px; justify-content: space-between; padding: 36px 10%; background: var(--deep); color: #dfe9ea; } footer p { margin: 4px 0; } .badge img { border-radius: 10px; }
@media (max-width: 760px) {
  .top { flex-wrap: wrap; padding: 12px 16px; gap: 12px; } nav { order: 3; width: 100%; overflow-x: auto; gap: 16px; margin: 0; white-space: nowrap; } .ticket { margin-left: auto; padding: 8px 16px; }
  main { padding: 26px 16px 44px; } .track figure { height: 380px; } figcaption { padding: 70px 20px 36px; } figcaption h2 { font-size: 32px; } .dots { right: 20px; bottom: 14px; }
  .intro { align-items: flex-start; gap: 16px; } .sock { width: 84px; height: 84px; flex: none; } .icons { grid-template-columns: repeat(2, 1fr); padding: 18px; } .cards { grid-template-columns: 1fr; } .pair, .columns, .maker { grid-template-columns: 1fr; } .story { flex-direction: column; align-items: stretch; gap: 0; } .story img { width: 100%; } .story div { padding: 14px 18px; }
  .people { grid-template-columns: repeat(2, 1fr); } .people img { width: 130px; height: 130px; } .face { width: 100%; height: 360px; } .stories a { gap: 14px; } .stories img { width: 120px; height: 130px; } .stories h2 { font-size: 19px; } .thumbs { grid-template-columns: repeat(2, 1fr); gap: 8px; } .thumbs img { height: 130px; } footer { flex-direction: column; gap: 16px; padding: 28px 16px; }
}
`;

/** The style sheet behind the `@import`: found only after the first one has arrived. */
export const typeCss = `body { font: 16px/1.6 "DejaVu Sans", "Segoe UI", Helvetica, Arial, sans-serif; }
h1, h2, h3, .brand { font-family: "DejaVu Serif", Georgia, serif; line-height: 1.2; color: var(--deep); }
h1 { font-size: 40px; } h2 { font-size: 28px; } h3 { font-size: 18px; }
@media (max-width: 760px) { h1 { font-size: 30px; } h2 { font-size: 24px; } }
`;

/** The slider, in the head and synchronous: nothing is drawn before it has arrived. */
export const sliderJs = `addEventListener('DOMContentLoaded', function () {
  var track = document.querySelector('.track');
  if (!track) return;
  var dots = document.querySelector('.dots');
  var count = track.children.length;
  function show(index) {
    track.style.transform = 'translateX(' + -100 * index + '%)';
    for (var i = 0; i < count; i++) dots.children[i].toggleAttribute('aria-current', i === index);
  }
  for (var i = 0; i < count; i++) {
    var dot = document.createElement('button');
    dot.setAttribute('aria-label', 'Picture ' + (i + 1));
    dot.addEventListener('click', show.bind(null, i));
    dots.append(dot);
  }
  show(0);
});
`;

/** The third party's tag: waits, counts the visit, and is of no use to the visitor. */
export const tagJs = `setTimeout(function () {
  new Image().src = 'http://${tagHost}/count.gif?at=' + Math.round(performance.now());
}, 300);
`;

/** One transparent pixel. */
export const countingPixel = Buffer.from(
  'R0lGODlhAQABAIAAAAAAAP///yH5BAEAAAAALAAAAAABAAEAAAIBRAA7',
  'base64',
);
