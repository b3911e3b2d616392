import { useState } from 'preact/hooks';
import type { ViewProps } from './view.js';
import { Code, CopyButton } from './copy.js';
import type { Report, WorkItem } from './data.js';
import { shortAddress } from './data.js';
import { count, formatBytes } from './numbers.js';
import { usePrinting } from './use-printing.js';

const people = {
  content: 'Pictures',
  markup: 'Templates and build',
  server: 'Server',
  'third party': 'Third parties',
} as const;

/** Items that are listed of each person at first. */
const listed = 100;

export function HandOver({ report }: ViewProps) {
  const { items } = report.worklist;
  const done = useDone(report);
  if (items.length === 0) return <p class="faint">There is nothing to do.</p>;
  const left = items.filter(({ id }) => !done.has(id)).length;
  return (
    <>
      <div class="tools">
        <p role="status">
          {left} of {count(items.length, 'item')} left to do
        </p>
        <a
          class="button"
          href={`data:text/csv;charset=utf-8,${encodeURIComponent(report.worklistCsv)}`}
          download="work-list.csv"
        >
          Download as CSV
        </a>
        <button type="button" onClick={() => print()}>
          Print, a page a person
        </button>
      </div>
      {report.snippets === null && (
        <p class="faint">
          This is what the survey alone tells. With zealous-lynx refit --out DIR, and report --refit
          DIR, the list has the right-sized files and the markup for them as well.
        </p>
      )}
      {Object.entries(people).map(([who, title]) => (
        <Person key={who} report={report} who={who} title={title} done={done} />
      ))}
    </>
  );
}

interface PersonProps {
  readonly report: Report;
  readonly who: string;
  readonly title: string;
  readonly done: Done;
}

function Person({ report, who, title, done }: PersonProps) {
  const [chosen, setMost] = useState(listed);
  const most = usePrinting() ? Infinity : chosen;
  const own = report.worklist.items
    .map((item, at) => ({ item, ticket: report.tickets[at]! }))
    .filter(({ item }) => item.who === who);
  if (own.length === 0) return null;
  const saved = own.reduce((sum, { item }) => sum + item.savedPerVisit, 0);
  return (
    <section class="person">
      <h2>
        {title} <span class="faint">{count(own.length, 'item')}</span>
      </h2>
      <p class="faint">
        {saved >= 1
          ? `Together they save ${formatBytes(Math.round(saved))} of an average visit. `
          : ''}
        <CopyButton text={own.map(({ ticket }) => ticket).join('\n\n')}>
          Copy all as tickets
        </CopyButton>
      </p>
      <ul class="work">
        {own.slice(0, most).map(({ item, ticket }) => (
          <Item key={item.id} report={report} item={item} ticket={ticket} done={done} />
        ))}
      </ul>
      {own.length > most && (
        <button type="button" onClick={() => setMost(own.length)}>
          Show {count(own.length - most, 'more item')}
        </button>
      )}
    </section>
  );
}

interface ItemProps {
  readonly report: Report;
  readonly item: WorkItem;
  readonly ticket: string;
  readonly done: Done;
}

function Item({ report, item, ticket, done }: ItemProps) {
  const { id, what, url, where, from, to, code, check, savedPerVisit, pages } = item;
  const isDone = done.has(id);
  return (
    <li class={isDone ? 'done' : ''}>
      <label>
        <input type="checkbox" checked={isDone} onChange={() => done.toggle(id)} />
        <strong>{what}</strong>
      </label>
      <p>
        <span class="address">{shortAddress(report, url)}</span>
        {where ? `, in ${where}` : ''}
        {pages.length > 0 ? `, on ${count(pages.length, 'page')}` : ''}
        {savedPerVisit >= 1
          ? `; saves ${formatBytes(Math.round(savedPerVisit))} of an average visit`
          : ''}
      </p>
      {(from || to) && (
        <p class="faint">
          {from}
          {from && to ? ' → ' : ''}
          {to}
        </p>
      )}
      {code && <Code text={code.text} what="What to write" />}
      <p class="faint check">
        {id} · check: <Command text={check} />{' '}
        <CopyButton text={ticket}>Copy as a ticket</CopyButton>
      </p>
    </li>
  );
}

/** A command, whose options are never torn apart at the end of a line. */
function Command({ text }: { readonly text: string }) {
  return (
    <code>
      {text.split(/(?<= )(--[\w-]+)/).map((part, at) =>
        part.startsWith('--') ? (
          <span key={at} class="whole">
            {part}
          </span>
        ) : (
          part
        ),
      )}
    </code>
  );
}

interface Done {
  readonly has: (id: string) => boolean;
  readonly toggle: (id: string) => void;
}

/** What is ticked off, kept in the browser's storage for this survey. */
function useDone({ rank, title }: Report): Done {
  const key = `zealous-lynx done ${title} ${rank.survey.label} ${rank.survey.startedAt}`;
  const [ids, setIds] = useState(() => new Set(read(key)));
  return {
    has: (id) => ids.has(id),
    toggle: (id) => {
      const next = new Set(ids);
      if (!next.delete(id)) next.add(id);
      setIds(next);
      try {
        localStorage.setItem(key, JSON.stringify([...next]));
      } catch {
        // A browser that keeps nothing: the ticks last as long as the page is open.
      }
    },
  };
}

function read(key: string): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    return Array.isArray(kept) ? kept.filter((id) => typeof id === 'string') : [];
  } catch {
    return [];
  }
}
