import { useMemo, useRef, useState } from 'preact/hooks';
import type { ViewProps } from './view.js';
import { PartBar } from './bars.js';
import type { Report } from './data.js';
import { imageName, pictureAt, shortAddress } from './data.js';
import { count, formatBytes, requestTypes } from './numbers.js';
import { PagePlan, boxesOf } from './page-plan.js';
import { useVirtual } from './use-virtual.js';

const rowHeight = 52;

export function Pages({ report, selected, go }: ViewProps) {
  const [search, setSearch] = useState('');
  const sorted = useMemo(() => {
    const places = report.pages.map((_, at) => at);
    const waste = (at: number) => report.pages[at]!.perVisit?.wasteBytes ?? 0;
    return places.sort((a, b) => waste(b) - waste(a));
  }, [report]);
  const words = search.trim().toLowerCase();
  const shown = words
    ? sorted.filter((at) =>
        `${report.pages[at]!.url}\n${report.pages[at]!.group ?? ''}`.toLowerCase().includes(words),
      )
    : sorted;
  const scroll = useRef<HTMLDivElement>(null);
  const virtual = useVirtual({
    count: shown.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => rowHeight,
    getItemKey: (at) => shown[at] ?? at,
    overscan: 8,
  });
  const current = report.pages[Number(selected)] && selected !== '' ? Number(selected) : shown[0];
  const step = (by: number) => {
    const next = shown[Math.max(0, Math.min(shown.length - 1, shown.indexOf(current ?? 0) + by))];
    if (next !== undefined) go('pages', String(next));
  };
  return (
    <div class="split">
      <section class="list" aria-label="Pages">
        <label>
          Search{' '}
          <input
            type="search"
            value={search}
            onInput={(event) => setSearch(event.currentTarget.value)}
          />
        </label>
        <p role="status" class="faint">
          {count(shown.length, 'page')}, the most waste first
        </p>
        <div
          class="scroll"
          ref={scroll}
          role="listbox"
          tabIndex={0}
          aria-label="Pages, the most waste first"
          aria-activedescendant={current === undefined ? undefined : `page-${current}`}
          onKeyDown={(event) => {
            const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
            if (by === undefined) return;
            event.preventDefault();
            step(by);
          }}
        >
          <div class="room" style={{ height: `${virtual.getTotalSize()}px` }} role="presentation">
            {virtual.getVirtualItems().map(({ index, key, start }) => {
              const at = shown[index]!;
              const { url, group, perVisit, error } = report.pages[at]!;
              return (
                <div
                  key={key}
                  id={`page-${at}`}
                  class="place page-row"
                  role="option"
                  aria-selected={at === current}
                  style={{ transform: `translateY(${start}px)`, height: `${rowHeight}px` }}
                  onClick={() => go('pages', String(at))}
                >
                  <span class="address">{shortAddress(report, url)}</span>
                  <span class="faint" title={error ?? group ?? ''}>
                    {error ??
                      `${formatBytes(perVisit?.wasteBytes ?? 0)} of an average visit to the site${group ? ` · ${group}` : ''}`}
                  </span>
                </div>
              );
            })}
          </div>
        </div>
      </section>
      {current === undefined ? (
        <p class="faint">No page matches.</p>
      ) : (
        <PageDetail key={current} report={report} at={current} />
      )}
    </div>
  );
}

function PageDetail({ report, at }: { readonly report: Report; readonly at: number }) {
  const page = report.pages[at]!;
  const [name, setName] = useState(page.views[0]?.view ?? '');
  const view = page.views.find((one) => one.view === name);
  const found = page.found.map((place) => report.found[place]!);
  return (
    <article class="page">
      <h2 class="address">{page.url}</h2>
      <p class="faint">
        {page.group ? `group ${page.group}, ` : ''}
        {page.status === null ? 'no response' : `status ${page.status}`}
        {page.error ? `: ${page.error}` : ''}
      </p>
      {page.ofPage && (
        <p>
          An average visit to this page is sent {formatBytes(page.ofPage.sentBytes)} of images,
          needs {formatBytes(page.ofPage.neededBytes)} and wastes{' '}
          <strong>{formatBytes(page.ofPage.wasteBytes)}</strong>.
        </p>
      )}
      <div class="columns">
        <section>
          <h3>As it is laid out</h3>
          {page.views.length === 0 ? (
            <p class="faint">
              {report.plansLeftOut > 0
                ? `The report draws the pages that waste the most, and leaves ${count(report.plansLeftOut, 'page')} out.`
                : 'The survey did not keep where its images stand: survey it again.'}
            </p>
          ) : (
            <fieldset class="views">
              <legend class="unseen">View</legend>
              {page.views.map((one) => (
                <label key={one.view}>
                  <input
                    type="radio"
                    name="view"
                    checked={one.view === name}
                    onChange={() => setName(one.view)}
                  />
                  {one.view}
                </label>
              ))}
            </fieldset>
          )}
          {view && <PagePlan report={report} page={at} view={view} />}
        </section>
        <section>
          <h3>Weight by type, in its heaviest view</h3>
          <PartBar
            label="Weight by type"
            parts={requestTypes.map((type) => ({
              name: type,
              bytes: page.bytesByType[type],
              look: `look-${type}`,
            }))}
          />
          {found.length > 0 && (
            <>
              <h3>How it is put together and sent</h3>
              <ul class="found">
                {found.slice(0, 30).map((one, index) => (
                  <li key={index}>
                    <a href={`#fixes/finding-${report.found.indexOf(one)}`}>{one.title}</a>{' '}
                    <span class="faint">
                      {shortAddress(report, one.url)} {one.message}
                    </span>
                  </li>
                ))}
              </ul>
            </>
          )}
          {view && <PageImages report={report} view={view} />}
        </section>
      </div>
    </article>
  );
}

/** Images that are listed; the others are counted. */
const listed = 60;

function PageImages({
  report,
  view,
}: {
  readonly report: Report;
  readonly view: Report['pages'][number]['views'][number];
}) {
  const boxes = useMemo(() => boxesOf(view), [view]);
  const more = boxes.length - listed;
  return (
    <>
      <h3>Its images, as they stand in the document</h3>
      <ol class="image-list">
        {boxes.slice(0, listed).map(({ image, width, height, waste }, at) => {
          const file = report.rank.images[image];
          const thumbnail = pictureAt('thumbnails', image);
          return (
            <li key={at}>
              <span class="thumb">{thumbnail && <img src={thumbnail} alt="" />}</span>
              <span class="words">
                <span class="address">{imageName(report, image)}</span>
                <span class="faint">
                  {width} × {height} CSS px{file && `, ${formatBytes(file.bytes)}`}; such a visit
                  wastes {formatBytes(waste)}
                </span>
              </span>
            </li>
          );
        })}
        {more > 0 && <li class="faint">and {count(more, 'more')}</li>}
      </ol>
    </>
  );
}
