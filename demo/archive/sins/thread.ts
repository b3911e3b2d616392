import { js } from '../sin.js';
import type { Sin } from '../sin.js';

const picture =
  '<svg xmlns="http://www.w3.org/2000/svg" width="600" height="320"><rect width="600" height="320" fill="#17637a"/></svg>';

export const threadSins: readonly Sin[] = [
  {
    finding: 'slow-script',
    fault: 'a script that counts for a quarter of a second',
    parts: (place, isMended) => {
      const url = place.file('count.js');
      const time = isMended ? 1 : 250;
      const body = `function countKites(){const end=performance.now()+${time};while(performance.now()<end);}countKites();`;
      return { body: `<script src="${url}" defer></script>`, files: { [url]: js(body) } };
    },
  },
  {
    finding: 'forced-layout',
    also: ['slow-script'],
    fault: 'a script that asks for a size after each change',
    parts: (place, isMended) => {
      const url = place.file('measure.js');
      const [read, work] = isMended
        ? ['0', 'if(at>0)break;']
        : ['list.offsetHeight', 'list.style.width=200+at+"px";'];
      const body = `function measureTails(){const list=document.querySelector("#tails");let sum=0;for(let at=0;at<60;at++){${work}sum+=${read};}list.dataset.sum=sum;}measureTails();`;
      const items = '<li>A tail of forty metres, sewn by hand in one winter</li>'.repeat(300);
      return {
        // Out of sight, so that nothing is seen to move.
        body: `<ul id="tails" style="position:absolute;left:-2000px;width:200px">${items}</ul><script src="${url}" defer></script>`,
        files: { [url]: js(body) },
      };
    },
  },
  {
    finding: 'large-dom',
    fault: 'over 1,500 elements',
    parts: (_, isMended) => ({ body: isMended ? '' : `<div>${'<b>k</b> '.repeat(1_600)}</div>` }),
  },
];

/** A page of its own: what a busy page draws late moves nothing. */
export const shiftSins: readonly Sin[] = [
  {
    finding: 'layout-shift',
    fault: 'a picture without a size that comes late',
    parts: (place, isMended) => {
      const url = place.file('banner.svg');
      const size = isMended ? ' width="600" height="320"' : '';
      return {
        body: `<img id="banner" src="${url}" alt="The bay"${size}><p>${'The wind was from the sea. '.repeat(30)}</p>`,
        files: { [url]: { type: 'image/svg+xml', body: picture, delay: 1_000 } },
      };
    },
  },
];
