import { fileFinding } from '../site-case.js';

/** A style sheet, a script, a font or data that the server does not have, or a server that does not answer. */
export const failedFile = fileFinding({
  id: 'failed-file',
  title: 'missing file, or one whose server gives no answer',
  doer: 'markup',
  fix: 'Correct its address, or remove what asks for it.',
  isWork: true,
  docs: {
    meaning: 'A style sheet, a script, a font or data is answered with an error, or not at all.',
    why: 'The page waits for it in vain, and does without what it was for.',
    computed: 'By the status of the response; the cost is the bytes of the error page.',
    ignore: 'Where it is there for real visitors and refused to programs.',
  },
  step: () => 'correct its address, or remove what asks for it',
  checkFile: ({ resource: { url, type, status, transferBytes, renderBlocking } }) => {
    if ((status >= 200 && status < 400) || type === 'html' || type === 'image') return undefined;
    const data = { url, status, blocks: renderBlocking };
    return { data, bytes: status === 0 ? null : transferBytes };
  },
  describe: ({ status, blocks }) => {
    const words = status === 0 ? 'gives no answer' : `returns ${status}`;
    return blocks ? `${words}; the page is not drawn before that is known` : words;
  },
});
