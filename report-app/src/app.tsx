import { useEffect, useRef } from 'preact/hooks';
import type { Report } from './data.js';
import { go, usePlace } from './hash.js';
import { Fixes } from './fixes.js';
import { HandOver } from './hand-over.js';
import { Loading } from './loading.js';
import { Overview } from './overview.js';
import { Pages } from './pages.js';

const views = [
  { id: 'overview', title: 'Overview', show: Overview },
  { id: 'fixes', title: 'Fixes', show: Fixes },
  { id: 'pages', title: 'Pages', show: Pages },
  { id: 'loading', title: 'Loading', show: Loading },
  { id: 'hand-over', title: 'Hand-over', show: HandOver },
] as const;

export function App({ report }: { readonly report: Report }) {
  const place = usePlace();
  const current = views.find(({ id }) => id === place.view) ?? views[0];
  const heading = useRef<HTMLHeadingElement>(null);
  const before = useRef(current.id);
  useEffect(() => {
    if (before.current === current.id) return;
    before.current = current.id;
    heading.current?.focus();
  }, [current.id]);
  const { survey } = report.rank;
  const Show = current.show;
  return (
    <div class="frame">
      <a class="skip" href={`#${current.id}`} onClick={() => heading.current?.focus()}>
        Skip to the content
      </a>
      <header>
        <p class="title">{report.title}</p>
        <nav aria-label="Views">
          {views.map(({ id, title }) => (
            <a key={id} href={`#${id}`} aria-current={id === current.id ? 'page' : undefined}>
              {title}
            </a>
          ))}
        </nav>
        <p class="faint when">
          survey {survey.label}, {survey.startedAt.slice(0, 10)}
          {survey.finishedAt === null ? ', interrupted' : ''}
        </p>
      </header>
      <main>
        <h1 tabIndex={-1} ref={heading}>
          {current.title}
        </h1>
        <Show report={report} selected={place.view === current.id ? place.selected : ''} go={go} />
      </main>
    </div>
  );
}
