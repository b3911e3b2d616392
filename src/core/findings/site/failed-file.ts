import { siteFinding } from './site-case.js';

/** A style sheet, a script, a font or data that the server does not have. */
export const failedFile = siteFinding({
  id: 'failed-file',
  title: 'file that the server does not have',
  doer: 'markup',
  fix: 'Correct its address, or remove what asks for it.',
  isWork: true,
  step: () => 'correct its address, or remove what asks for it',
  check: ({ resource: { url, type, status, transferBytes, renderBlocking } }) =>
    status < 400 || type === 'html'
      ? undefined
      : { data: { url, status, blocks: renderBlocking }, bytes: transferBytes },
  describe: ({ status, blocks }) =>
    `returns ${status}${blocks ? '; the page is not drawn before the server has said so' : ''}`,
});
