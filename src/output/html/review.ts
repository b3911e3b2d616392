import { createHash } from 'node:crypto';
import { asMarkup } from '../../core/base/markup-text.js';
import type { Region } from '../../core/base/region.js';
import type { Size } from '../../core/base/size.js';
import { plainText } from '../words/plain-text.js';

/** One picture of a review: the place of its pieces, and its words. */
export interface ReviewedPicture {
  readonly title: string;
  readonly facts: string;
  /** Addresses of the crops, relative to the page. */
  readonly before: string;
  readonly after: string;
  readonly size: Size;
  readonly worst: Region;
}

/** The factor by which the place where they differ most is enlarged. */
const enlarged = 5;

const style = `
:root { --ink: #1b1f24; --pale: #667; --line: #d9dce1; --mark: #7a3fa0; color-scheme: light; }
* { box-sizing: border-box; }
body { margin: 0; padding: 28px 32px 64px; color: var(--ink); background: #fff; font: 15px/1.5 system-ui, sans-serif; }
h1 { margin: 0; font-size: 24px; } .about { margin: 4px 0 28px; color: var(--pale); max-width: 80ch; }
section { padding: 20px 0; border-top: 1px solid var(--line); }
h2 { margin: 0; font-size: 17px; overflow-wrap: anywhere; } .facts { margin: 0 0 12px; color: var(--pale); }
.row { display: flex; flex-wrap: wrap; gap: 24px; align-items: flex-start; }
.compare { position: relative; overflow: hidden; background: #eee; max-width: 100%; }
.compare img { display: block; position: absolute; inset: 0; }
.compare .after { clip-path: inset(0 0 0 var(--at, 50%)); }
.compare .line { position: absolute; top: 0; bottom: 0; left: var(--at, 50%); width: 2px; margin-left: -1px; background: var(--mark); }
.side { position: absolute; bottom: 6px; padding: 1px 8px; background: rgba(255, 255, 255, .85); font-size: 12px; } .side.b { left: 6px; } .side.a { right: 6px; }
input[type='range'] { display: block; width: 100%; margin: 6px 0 0; accent-color: var(--mark); }
figure { margin: 0; } figcaption { font-size: 13px; color: var(--pale); }
.spot { overflow: hidden; position: relative; margin-bottom: 8px; background: #eee; } .spot img { position: absolute; transform-origin: 0 0; image-rendering: pixelated; }
`;

const script = `
for (const range of document.querySelectorAll('input[type=range]'))
  range.addEventListener('input', () => range.previousElementSibling.style.setProperty('--at', range.value + '%'));
`;

/** The pictures beside it and its own script, and nothing that a page could have put into it. */
const contentPolicy = [
  "default-src 'none'",
  "img-src 'self' file:",
  "style-src 'unsafe-inline'",
  `script-src 'sha256-${createHash('sha256').update(script).digest('base64')}'`,
].join('; ');

/** A page that shows refitted pictures beside their originals, at 100 % and enlarged. */
export function reviewHtml(entries: readonly ReviewedPicture[]): string {
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${contentPolicy}">
<title>Originals and refits</title>
<style>${style}</style>
</head>
<body>
<h1>Originals and refits</h1>
<p class="about">Look at them before anything goes live. Each is shown at 100 %, a pixel of the file to a pixel of the screen at a density of 1: to the left of the line the original, reduced to the same size without loss; to the right what visitors are sent. Beside it, the place where the two differ most, ${enlarged} times enlarged.</p>
${entries.map(section).join('\n')}
<script>${script}</script>
</body>
</html>
`;
}

function section({ title, facts, before, after, size, worst }: ReviewedPicture): string {
  const { width, height } = size;
  const image = (source: string, kind: string) =>
    `<img class="${kind}" src="${asMarkup(source)}" width="${width}" height="${height}" alt="" loading="lazy">`;
  const spot = (source: string, name: string) =>
    `<figure><div class="spot" style="width:${worst.width * enlarged}px;height:${worst.height * enlarged}px"><img src="${asMarkup(source)}" width="${width}" height="${height}" alt="" loading="lazy" style="transform:scale(${enlarged}) translate(${-worst.left}px,${-worst.top}px)"></div><figcaption>${name}</figcaption></figure>`;
  return `<section>
<h2>${asMarkup(plainText(title))}</h2>
<p class="facts">${asMarkup(plainText(facts))}</p>
<div class="row">
<div style="width:${width}px;max-width:100%"><div class="compare" style="width:${width}px;height:${height}px">${image(before, 'before')}${image(after, 'after')}<span class="line"></span><span class="side b">original</span><span class="side a">refit</span></div><input type="range" min="0" max="100" value="50" aria-label="How much of the original is shown"></div>
${spot(before, 'original, enlarged')}
${spot(after, 'refit, enlarged')}
</div>
</section>`;
}
