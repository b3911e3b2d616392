import {
  createColumnHelper,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
} from '@tanstack/table-core';
import type { Row } from '@tanstack/table-core';
import { useEffect, useMemo, useRef, useState } from 'preact/hooks';
import type { ViewProps } from './view.js';
import { pictureAt, shortAddress } from './data.js';
import { FamilyDetail } from './family-detail.js';
import { FindingDetail } from './finding-detail.js';
import { fixRows } from './fix-rows.js';
import type { FixRow } from './fix-rows.js';
import { count, formatBytes, formatTime } from './numbers.js';
import { useTable } from './use-table.js';
import { mostPrinted, useVirtual } from './use-virtual.js';

/** By name, then by where they are; in lower case already, as ten thousand rows are compared a hundred thousand times. */
function byText({ original: one }: Row<FixRow>, { original: other }: Row<FixRow>): number {
  return one.text < other.text ? -1 : Number(one.text > other.text);
}

const column = createColumnHelper<FixRow>();
const columns = [
  column.accessor('name', { header: 'what', sortingFn: byText }),
  column.accessor('who', { header: 'who acts', filterFn: 'equalsString' }),
  column.accessor('images', { header: 'images', sortDescFirst: true }),
  column.accessor('pages', { header: 'pages', sortDescFirst: true }),
  column.accessor((row) => row.time ?? -1, {
    id: 'time',
    header: 'time/visit',
    sortDescFirst: true,
  }),
  column.accessor((row) => row.bytes ?? -1, {
    id: 'bytes',
    header: 'bytes/visit',
    sortDescFirst: true,
  }),
  column.accessor('kind', { header: 'kind', filterFn: 'equalsString' }),
];
const shown = columns.slice(0, -1);

const rowHeight = 64;

export function Fixes({ report, selected, go }: ViewProps) {
  const data = useMemo(() => fixRows(report), [report]);
  const [search, setSearch] = useState('');
  const table = useTable<FixRow>({
    ...{ data, columns, getRowId: ({ id }) => id },
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
    globalFilterFn: (row, _column, words: string) => row.original.text.includes(words),
    getColumnCanGlobalFilter: () => true,
    initialState: { sorting: [{ id: 'bytes', desc: true }] },
  });
  useEffect(() => {
    table.setGlobalFilter(search.trim().toLowerCase() || undefined);
  }, [search]);
  const { rows } = table.getRowModel();
  const scroll = useRef<HTMLDivElement>(null);
  const virtual = useVirtual({
    count: rows.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => rowHeight,
    getItemKey: (at) => rows[at]?.id ?? at,
    overscan: 6,
  });
  const who = [...new Set(data.map((row) => row.who))].sort();
  const open = (id: string) => go('fixes', id === selected ? '' : id);
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const at = Number((event.target as HTMLElement).closest('[data-at]')?.getAttribute('data-at'));
    if (step === undefined || Number.isNaN(at)) return;
    event.preventDefault();
    const next = Math.max(0, Math.min(rows.length - 1, at + step));
    virtual.scrollToIndex(next);
    requestAnimationFrame(() =>
      scroll.current?.querySelector<HTMLElement>(`[data-at="${next}"] .opener`)?.focus(),
    );
  };
  return (
    <>
      <div class="tools" role="search">
        <label>
          Search{' '}
          <input
            type="search"
            value={search}
            placeholder="name, address, page group"
            onInput={(event) => setSearch(event.currentTarget.value)}
          />
        </label>
        <Choice
          label="Who acts"
          options={who}
          onChoose={(value) => table.getColumn('who')!.setFilterValue(value || undefined)}
        />
        <Choice
          label="Kind"
          options={['images', 'finding']}
          onChoose={(value) => table.getColumn('kind')!.setFilterValue(value || undefined)}
        />
        <p role="status" class="faint">
          {count(rows.length, 'fix', 'fixes')}
          {rows.length < data.length ? ` of ${data.length}` : ''}
        </p>
      </div>
      <div class="grid" role="table" aria-label="Fixes" aria-rowcount={rows.length + 1}>
        <div role="rowgroup">
          <div role="row" class="head" aria-rowindex={1}>
            {shown.map((one) => {
              const cell = table.getColumn(
                String(one.id ?? (one as { accessorKey?: string }).accessorKey),
              )!;
              const sorted = cell.getIsSorted();
              return (
                <div
                  key={cell.id}
                  role="columnheader"
                  class={`cell ${cell.id}`}
                  aria-sort={
                    sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'
                  }
                >
                  <button type="button" onClick={() => cell.toggleSorting()}>
                    {String(one.header)}
                    <span aria-hidden="true">
                      {sorted === 'asc' ? ' ↑' : sorted === 'desc' ? ' ↓' : ''}
                    </span>
                  </button>
                </div>
              );
            })}
          </div>
        </div>
        <div class="scroll" role="rowgroup" ref={scroll} onKeyDown={onKey}>
          <div role="presentation" style={{ height: `${virtual.getTotalSize()}px` }} class="room">
            {virtual.getVirtualItems().map(({ index, key, start }) => (
              <div
                key={key}
                data-index={index}
                data-at={index}
                ref={(element: HTMLElement | null) => virtual.measureElement(element)}
                class="place"
                role="presentation"
                style={{ transform: `translateY(${start}px)` }}
              >
                <Line
                  row={rows[index]!}
                  index={index}
                  report={report}
                  isOpen={rows[index]!.id === selected}
                  open={open}
                />
              </div>
            ))}
          </div>
        </div>
        {rows.length > mostPrinted && (
          <p class="paper-only faint">
            The first {mostPrinted} of {count(rows.length, 'fix', 'fixes')}; the others are in the
            file.
          </p>
        )}
        {rows.length === 0 && (
          <p class="faint none">No fix matches. Clear the search to see all.</p>
        )}
      </div>
    </>
  );
}

function Choice(props: {
  readonly label: string;
  readonly options: readonly string[];
  readonly onChoose: (value: string) => void;
}) {
  return (
    <label>
      {props.label}{' '}
      <select onChange={(event) => props.onChoose(event.currentTarget.value)}>
        <option value="">all</option>
        {props.options.map((option) => (
          <option key={option}>{option}</option>
        ))}
      </select>
    </label>
  );
}

interface LineProps extends Pick<ViewProps, 'report'> {
  readonly row: Row<FixRow>;
  readonly index: number;
  readonly isOpen: boolean;
  readonly open: (id: string) => void;
}

function Line({ row, index, report, isOpen, open }: LineProps) {
  const { id, kind, at, name, where, who, images, pages, bytes, time } = row.original;
  const first = kind === 'images' ? report.families[at]!.images[0] : undefined;
  const thumbnail = first === undefined ? undefined : pictureAt('thumbnails', first);
  return (
    <>
      <div
        role="row"
        class={`row ${isOpen ? 'open' : ''}`}
        aria-rowindex={index + 2}
        onClick={() => open(id)}
      >
        <div role="cell" class="cell name">
          <span class="thumb" aria-hidden="true">
            {thumbnail ? <img src={thumbnail} alt="" /> : kind === 'images' ? '' : '!'}
          </span>
          <span class="words">
            <button
              type="button"
              class="opener"
              aria-expanded={isOpen}
              onClick={(event) => {
                event.stopPropagation();
                open(id);
              }}
            >
              {name}
            </button>
            <span class="faint">{shortAddress(report, where)}</span>
          </span>
        </div>
        <div role="cell" class="cell who">
          {who}
        </div>
        <div role="cell" class="cell images">
          {images || '–'}
        </div>
        <div role="cell" class="cell pages">
          {pages}
        </div>
        <div role="cell" class="cell time">
          {time === null ? '–' : formatTime(time)}
        </div>
        <div role="cell" class="cell bytes">
          {bytes === null ? '–' : formatBytes(bytes)}
        </div>
      </div>
      {isOpen && (
        <div class="detail" role="row">
          <div role="cell">
            {kind === 'images' ? (
              <FamilyDetail report={report} at={at} />
            ) : (
              <FindingDetail report={report} found={report.found[at]!} />
            )}
          </div>
        </div>
      )}
    </>
  );
}
