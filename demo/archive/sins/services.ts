import { js, mark } from '../sin.js';
import type { Sin } from '../sin.js';

export const serviceSins: readonly Sin[] = [
  {
    finding: 'third-party-service',
    fault: 'a tag of a third party that counts visits',
    parts: (place, isMended) => {
      const url = place.third('tags', 'tag.js');
      const beacon = place.third('tags', 'count');
      return {
        body: isMended ? '' : `<script src="${url}" async></script>`,
        files: {
          [url]: js(`navigator.sendBeacon("${beacon}","1");`),
          [beacon]: { type: 'text/plain', body: '' },
        },
      };
    },
  },
  {
    finding: 'idle-service',
    also: ['third-party-service'],
    fault: 'the widget of a fair that is long over: it comes, and does nothing',
    parts: (place, isMended) => {
      const url = place.third('fair', 'widget.js');
      const words = 'Come to the fair of the bay, with stalls, kites and a brass band. '.repeat(4);
      const body = `function stall(){for(const one of document.querySelectorAll("[data-fair]"))one.append("${words}")}function tent(){document.body.append("${words}")}globalThis.fair=[stall,tent];`;
      return {
        body: isMended ? '' : `<script src="${url}" async></script>`,
        files: { [url]: js(body) },
      };
    },
  },
  {
    finding: 'doubled-script',
    fault: 'one script that two templates bring',
    parts: (place, isMended) => {
      const url = place.file('twice.js');
      const tag = `<script src="${url}" defer></script>`;
      return { body: isMended ? tag : tag + tag, files: { [url]: js(mark(place, 'twice')) } };
    },
  },
];
