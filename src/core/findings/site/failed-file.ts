import { siteFinding } from './site-case.js';

/** A style sheet, a script, a font or data that the server does not have, or a server that does not answer. */
export const failedFile = siteFinding({
  id: 'failed-file',
  title: 'missing file, or one whose server gives no answer',
  doer: 'markup',
  fix: 'Correct its address, or remove what asks for it.',
  isWork: true,
  step: () => 'correct its address, or remove what asks for it',
  check: ({ resource: { url, type, status, transferBytes, renderBlocking } }) => {
    if ((status >= 200 && status < 400) || type === 'html') return undefined;
    const data = { url, status, blocks: renderBlocking };
    return { data, bytes: status === 0 ? null : transferBytes };
  },
  describe: ({ status, blocks }) => {
    const words = status === 0 ? 'gives no answer' : `returns ${status}`;
    return blocks ? `${words}; the page is not drawn before that is known` : words;
  },
});
