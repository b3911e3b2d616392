import { addressAttribute, htmlCode } from '../../code.js';
import { fileFinding, hasCome } from '../site-case.js';

/** A font that browsers learn of late. */
export const lateFont = fileFinding({
  id: 'late-font',
  title: 'font that is found late',
  doer: 'markup',
  fix: 'Preload the font (as="font", crossorigin), or declare it in the document or its first style sheet.',
  isWork: true,
  docs: {
    meaning:
      'A font is declared in a style sheet that another one imports or a third party sends, or it is asked for by a script.',
    why: 'Text waits for it, and it begins to come only after all that leads to it.',
    computed:
      'By the initiator of the request. The time is the round trip on the line mobile that leads to the style sheet.',
    ignore: 'Where the font is for little text far down.',
  },
  step: () => 'preload it, or declare it in the first style sheet',
  checkFile: ({ resource }, { files, network }) => {
    const { url, type, initiator, initiatedBy } = resource;
    if (type !== 'font' || !hasCome(resource)) return undefined;
    const by = files.find((file) => file.resource.url === initiatedBy)?.resource;
    const isLate =
      initiator === 'script' ||
      (by?.type === 'style' && (by.initiator === 'style' || by.thirdParty));
    if (!isLate) return undefined;
    const data = { url, declaredBy: initiatedBy, time: network.latency, network: network.name };
    return { data, bytes: null, time: network.latency };
  },
  code: ({ url }) =>
    htmlCode(`<link rel="preload" as="font" ${addressAttribute('href', url)} crossorigin>`),
  describe: ({ declaredBy, time: taken, network }, { time }) =>
    `is found late${declaredBy === null ? '' : `: ${declaredBy} asks for it`} (${time(taken)} on the line ${network})`,
});
