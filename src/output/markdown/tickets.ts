import type { WorkItem } from '../../core/refit/work/work-item.js';
import { checkOf } from '../words/work-item.js';
import { asCode, asCodeBlock, asLink, escaped } from './markdown.js';
import { count, formatBytes } from '../words/units.js';

/** The most pages named in a ticket. */
const named = 10;

/** Each item of a work list as the text of a ticket, the largest saving first. */
export function ticketsMarkdown(items: readonly WorkItem[]): string {
  return ['# Tickets', ...items.map(ticketText)].join('\n\n');
}

/** An item as the text of a ticket. */
export function ticketText(item: WorkItem): string {
  const { id, who, what, url, images, where, pages, selector, from, to, code, savedPerVisit } =
    item;
  const more = pages.length - named;
  const others = more > 0 ? ` and ${count(more, 'more page')}` : '';
  const facts: [string, string][] = [
    ['For', who],
    ['Saves', savedPerVisit >= 1 ? `${formatBytes(savedPerVisit)} of an average visit` : ''],
    [
      images > 0 ? 'Image' : 'File',
      asLink(url) + (images > 1 ? ` and ${count(images - 1, 'more image')}` : ''),
    ],
    ['Template', where === null ? '' : escaped(where)],
    ['Pages', pages.slice(0, named).map(asLink).join(', ') + others],
    ['Element', asCode(selector)],
    ['From', escaped(from)],
    ['To', escaped(to)],
    ['Check', asCode(checkOf(item))],
  ];
  return [
    `## ${id}: ${escaped(what)}`,
    ...facts.filter(([, value]) => value !== '').map(([name, value]) => `- ${name}: ${value}`),
    ...(code ? ['', asCodeBlock(code)] : []),
  ].join('\n');
}
