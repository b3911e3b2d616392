import { css, js, mark, stylesheet, touch } from '../sin.js';
import type { Place, Sin } from '../sin.js';

/** Some small scripts of the host that speaks HTTP/1.1 alone. */
function oldHost(place: Place, name: string, count: number, headers: Record<string, string>) {
  const files = Array.from(
    { length: count },
    (_, at) =>
      [place.file(`${name}-${at}.js`, 'h1'), js(mark(place, `${name}${at}`), { headers })] as const,
  );
  return {
    body: files.map(([url]) => `<script src="${url}" async></script>`).join(''),
    files: Object.fromEntries(files),
  };
}

export const connectionSins: readonly Sin[] = [
  {
    finding: 'failed-file',
    fault: 'a script that is gone',
    parts: (place, isMended) => ({
      body: isMended ? '' : `<script src="${place.file('gone.js')}" defer></script>`,
    }),
  },
  {
    finding: 'page-redirect',
    fault: 'a page that is linked to by its old address',
    parts: (place, isMended) => (isMended ? {} : { foundAt: place.file('index.php') }),
  },
  {
    finding: 'redirected-file',
    fault: 'a style sheet that has moved',
    parts: (place, isMended) => {
      const [from, to] = [place.file('moved.css'), place.file('here.css')];
      return {
        head: stylesheet(isMended ? to : from),
        files: { [from]: { location: to }, [to]: css(touch(place, 'here')) },
      };
    },
  },
  {
    finding: 'mixed-schemes',
    // The browser refuses it.
    also: ['failed-file'],
    fault: 'a script over http',
    parts: (place, isMended) => {
      const url = place.file('mixed.js');
      const written = isMended ? url : url.replace('https:', 'http:');
      return {
        body: `<script src="${written}" defer></script>`,
        files: { [url]: js(mark(place, 'mixed')) },
      };
    },
  },
  {
    finding: 'many-hosts',
    fault: 'style sheets from five hosts',
    parts: (place, isMended) => {
      const names = ['a', 'b', 'c', 'd', 'e'];
      const files = names.map((name) => {
        const host = isMended ? undefined : name;
        return [place.file(`host-${name}.css`, host), css(touch(place, `host-${name}`))] as const;
      });
      return {
        head: files.map(([url]) => stylesheet(url)).join(''),
        files: Object.fromEntries(files),
      };
    },
  },
  {
    finding: 'closing-server',
    fault: 'a host that closes its connections',
    parts: (place, isMended) => oldHost(place, 'shut', 3, isMended ? {} : { connection: 'close' }),
  },
  {
    finding: 'old-protocol',
    also: ['many-files'],
    fault: 'a dozen files over HTTP/1.1',
    parts: (place, isMended) => oldHost(place, 'queue', isMended ? 1 : 12, {}),
  },
  {
    finding: 'slow-document',
    fault: 'a page that takes 0.7 s to make',
    parts: (_, isMended) => ({ answer: { delay: isMended ? 0 : 700 } }),
  },
];
