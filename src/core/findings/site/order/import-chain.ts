import { addressAttribute, htmlCode } from '../../code.js';
import { fileFinding, hasCome } from '../site-case.js';

/** A style sheet that is found only after another one has arrived. */
export const importChain = fileFinding({
  id: 'import-chain',
  title: 'style sheet that another one imports',
  doer: 'markup',
  fix: 'Link to it from the document, or put it into the style sheet that imports it.',
  isWork: true,
  docs: {
    meaning:
      'A style sheet is loaded by @import, so that browsers learn of it only from another one.',
    why: 'Nothing is drawn before all style sheets are there, and these come one after another.',
    computed:
      'By the initiator of the request. The time is one round trip on the line mobile, which a link would save.',
    ignore: 'Where the sheet is for printing or for a rare window alone.',
  },
  step: () => 'link to it from the document instead of importing it',
  checkFile: ({ resource }, { network }) => {
    const { url, type, initiator, initiatedBy } = resource;
    if (type !== 'style' || initiator !== 'style' || !hasCome(resource)) return undefined;
    const data = { url, importedBy: initiatedBy, time: network.latency, network: network.name };
    return { data, bytes: null, time: network.latency };
  },
  code: ({ url }) => htmlCode(`<link rel="stylesheet" ${addressAttribute('href', url)}>`),
  describe: ({ importedBy, time: taken, network }, { time }) =>
    `is imported${importedBy === null ? '' : ` by ${importedBy}`}, and comes a round trip later than a link would bring it (${time(taken)} on the line ${network})`,
});
