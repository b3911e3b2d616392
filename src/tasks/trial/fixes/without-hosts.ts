import { hostOf } from '../../../core/address/address.js';
import { isOnHost } from '../../../core/address/on-host.js';
import { editDocuments, resolved } from './fix.js';
import type { Fix } from './fix.js';

/** Elements that bring something from elsewhere, and the attribute that names it. */
const bringing = [
  ['script', 'src'],
  ['link', 'href'],
  ['img', 'src'],
  ['iframe', 'src'],
] as const;

export const withoutHosts: Fix = {
  name: 'without-hosts',
  title: 'without the hosts that --without-host names',
  unit: 'element',
  isOfBytes: true,
  isUsual: ({ hosts }) => hosts.length > 0,
  apply: async (recording, tools) => {
    const isOut = (url: string) => tools.hosts.some((host) => isOnHost(hostOf(url), host));
    const edited = await editDocuments(recording, tools, (document, base) => {
      const before = document.count;
      for (const [name, attribute] of bringing)
        for (const element of document.find(`${name}[${attribute}]`))
          if (isOut(resolved(element.attribs[attribute], base))) document.replace(element, '');
      return document.count - before;
    });
    const responses = edited.recording.responses.filter(({ request }) => !isOut(request.url));
    const gone = recording.responses.length - responses.length;
    return {
      recording: { ...edited.recording, responses },
      changed: edited.changed,
      notes:
        gone === 0
          ? [`the page requests nothing from ${tools.hosts.join(', ')}`]
          : [`${gone} ${gone === 1 ? 'response is' : 'responses are'} no longer there`],
    };
  },
};
