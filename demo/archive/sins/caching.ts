import { css, js, mark, stylesheet, touch } from '../sin.js';
import type { Place, Sin } from '../sin.js';

/** A style sheet with something wrong about its response. */
function sheet(place: Place, name: string, headers: Headers): ReturnType<Sin['parts']> {
  const url = place.file(`${name}.css`);
  return { head: stylesheet(url), files: { [url]: css(touch(place, name), { headers }) } };
}

type Headers = Readonly<Record<string, string>>;

const unless = (isMended: boolean, headers: Headers): Headers => (isMended ? {} : headers);

export const cachingSins: readonly Sin[] = [
  {
    finding: 'several-copies',
    fault: 'one script under two names',
    parts: (place, isMended) => {
      const [one, other] = [place.file('bell.js'), place.file('bell-copy.js')];
      const answer = js(mark(place, 'bell'));
      const second = isMended ? '' : `<script src="${other}" defer></script>`;
      return {
        body: `<script src="${one}" defer></script>${second}`,
        files: { [one]: answer, [other]: answer },
      };
    },
  },
  {
    finding: 'short-lifetime',
    fault: 'a style sheet that browsers may keep for a minute',
    parts: (place, isMended) =>
      sheet(place, 'minute', unless(isMended, { 'cache-control': 'max-age=60' })),
  },
  {
    finding: 'no-validator',
    fault: 'a document without a validator',
    parts: (_, isMended) => ({ answer: { headers: unless(isMended, { etag: '' }) } }),
  },
  {
    finding: 'split-cache',
    fault: 'a style sheet that varies by user agent',
    parts: (place, isMended) =>
      sheet(place, 'split', unless(isMended, { vary: 'Accept-Encoding, User-Agent' })),
  },
  {
    finding: 'query-string',
    fault: 'a style sheet with its version in the query',
    parts: (place, isMended) => {
      const url = isMended ? place.file('versioned.3.css') : place.file('versioned.css?v=3');
      return { head: stylesheet(url), files: { [url]: css(touch(place, 'versioned')) } };
    },
  },
  {
    finding: 'cookies-on-files',
    fault: 'a long cookie for everything',
    parts: (place, isMended) => {
      const { pathname } = new URL(place.page);
      const value = `visitor=${'k'.repeat(300)}; Path=${pathname}${isMended ? 'till/' : ''}`;
      return { ...sheet(place, 'seen', {}), answer: { headers: { 'set-cookie': value } } };
    },
  },
];

/** A page of its own: who keeps a document for days does not ask for its validator. */
export const lifetimeSins: readonly Sin[] = [
  {
    finding: 'long-lived-document',
    fault: 'a document that browsers keep for two days',
    parts: (_, isMended) => ({
      answer: { headers: unless(isMended, { 'cache-control': 'max-age=172800' }) },
    }),
  },
];
