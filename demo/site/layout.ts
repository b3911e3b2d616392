import { weatherHost, siteHost, tagHost } from './hosts.js';

/** One page of the site: where it is, and what stands between header and footer. */
export interface Page {
  readonly path: string;
  readonly title: string;
  readonly body: string;
  /** Style sheet of this page alone. */
  readonly css?: string;
  /** Stands without header and footer, in a frame. */
  readonly bare?: boolean;
  /** Milliseconds that the server takes to answer. */
  readonly delay?: number;
}

const navigation = [
  ['/programme/', 'Programme'],
  ['/makers/', 'Kite makers'],
  ['/journal/', 'Journal'],
  ['/gallery/', 'Gallery'],
  ['/getting-there/', 'Getting there'],
] as const;

/** A whole HTML document around a page's body. */
export function documentOf({ path, title, body, css = '', bare = false }: Page): string {
  if (bare) return `<!doctype html><meta charset="utf-8"><title>${title}</title>${body}`;
  const links = navigation.map(([href, name]) => {
    const here = path.startsWith(href) ? ' aria-current="page"' : '';
    return `<a href="${href}"${here}>${name}</a>`;
  });
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title} · Brindle Bay Kite Festival</title>
<script src="/assets/slider.js"></script>
<link rel="stylesheet" href="/assets/site.css">${css && `\n<style>${css}</style>`}
</head>
<body>
<header class="top">
  <a class="brand" href="/"><img src="/img/site/logo.svg" alt="" width="44" height="44"><span>Brindle Bay<small>Kite Festival</small></span></a>
  <nav>${links.join('')}</nav>
  <a class="ticket" href="/tickets">Tickets</a>
</header>
${body}
<footer>
  <div><strong>Brindle Bay Kite Festival</strong><p>11, 12 and 13 September, from the first wind to the last.</p></div>
  <div><p>Launch Field, Brindle Bay<br>Ask at the striped tent.</p></div>
  <div class="badge"><p>Today over the bay</p><img src="http://${weatherHost}/badge/weather.png" alt="Weather: sun and wind" width="200" height="100"></div>
</footer>
<script>addEventListener('load', function () { setTimeout(function () { var s = document.createElement('script'); s.src = 'http://${tagHost}/tag.js?site=${siteHost}'; document.body.append(s); }, 400); });</script>
</body>
</html>
`;
}

/** The picture with words on it that opens every page but the first. */
export function opening(picture: string, alt: string, title: string, words: string): string {
  return `<section class="opening"><img src="${picture}" alt="${alt}"><div><h1>${title}</h1><p>${words}</p></div></section>`;
}

/** A picture, a heading and a line, linked. */
export function card(
  href: string,
  picture: string,
  alt: string,
  title: string,
  words: string,
): string {
  return `<a class="card" href="${href}"><img src="${picture}" alt="${alt}"><div><h3>${title}</h3><p>${words}</p></div></a>`;
}
