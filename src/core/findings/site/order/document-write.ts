import { pageFinding } from '../site-case.js';

/** A script that writes into the document while it is read. */
export const documentWrite = pageFinding({
  id: 'document-write',
  title: 'script that calls document.write',
  doer: 'markup',
  fix: 'Insert elements instead (append, insertAdjacentHTML), or put what is written into the document.',
  isWork: true,
  docs: {
    meaning: 'A script calls document.write while the document is read.',
    why: 'The browser has to stop, and cannot look ahead for what comes next; browsers may refuse scripts that are written this way on slow lines.',
    computed:
      'Scripts in the document, and files, that call document.write; calls in functions that the browser did not run are left out.',
    ignore: 'Where it writes into a window of its own.',
  },
  step: () => 'insert elements instead of writing into the document',
  checkPage: ({ url, files, loads }, site) => {
    const writers = files.filter((file) => {
      const { writes } = file.text ?? {};
      const usage = writes && writes.length > 0 ? site.usageOf(file) : undefined;
      return usage && writes?.some((offset) => usage.isUsed(offset));
    });
    const inline = loads.some(({ parts }) => parts.writes > 0);
    const found = [
      ...writers.map(({ resource }) => ({ script: resource.url, together: resource.url })),
      ...(inline ? [{ script: null, together: '' }] : []),
    ];
    return found.map(({ script, together }) => ({
      data: { page: url, script },
      bytes: null,
      together,
    }));
  },
  describe: ({ script }) =>
    script === null
      ? 'has a script that writes into the document while it is read (document.write)'
      : `is written into by ${script} while it is read (document.write)`,
});
