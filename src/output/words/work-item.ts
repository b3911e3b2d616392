import type { WorkItem } from '../../core/refit/work/work-item.js';

/** The command that shows whether an item is done: a survey of one page, and what is to be done there then. */
export function checkOf({ pages, url }: Pick<WorkItem, 'pages' | 'url'>): string {
  const [page] = pages;
  if (page === undefined) return `zealous-lynx explain ${quoted(url)}`;
  return `zealous-lynx survey ${quoted(page)} --pages 1 --label check && zealous-lynx explain ${quoted(page)} --survey check`;
}

/** An address or a label as one word of a shell. */
export function quoted(address: string): string {
  return /^[\w.~:/@%+=-]+$/.test(address) ? address : `'${address.replaceAll("'", "'\\''")}'`;
}
