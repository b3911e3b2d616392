import { scaleLinear } from 'd3-scale';
import { useMemo, useState } from 'preact/hooks';
import type { Load, LoadRequest, RequestHeaders } from './data.js';
import { shortened } from './data.js';
import {
  count,
  formatBytes,
  formatTime,
  markerLines,
  markerSigns,
  phaseColours,
  phaseNames,
  requestTypes,
  typeLetters,
} from './numbers.js';

/** A part of a load, in milliseconds. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

interface WaterfallProps {
  readonly load: Load;
  /** Those of each request. */
  readonly headers: readonly RequestHeaders[];
  readonly span: Span;
  readonly whole: Span;
  readonly setSpan: (span: Span | null) => void;
}

const sorts = {
  start: (a: LoadRequest, b: LoadRequest) => a.start - b.start,
  end: (a: LoadRequest, b: LoadRequest) => (a.end ?? Infinity) - (b.end ?? Infinity),
  bytes: (a: LoadRequest, b: LoadRequest) => b.transferBytes - a.transferBytes,
  duration: (a: LoadRequest, b: LoadRequest) => lengthOf(b) - lengthOf(a),
} as const;

const row = 20;
const head = 46;
const names = 260;
const width = 1160;

export function Waterfall({ load, headers, span, whole, setSpan }: WaterfallProps) {
  const [type, setType] = useState('');
  const [host, setHost] = useState('');
  const [status, setStatus] = useState('');
  const [sort, setSort] = useState<keyof typeof sorts>('start');
  const [at, setAt] = useState(-1);
  const hosts = useMemo(() => [...new Set(load.requests.map(({ url }) => hostOf(url)))], [load]);
  const shown = load.requests
    .filter(
      (request) =>
        (!type || request.type === type) &&
        (!host || hostOf(request.url) === host) &&
        (!status || (status === 'failed') === (request.status >= 400 || request.failure !== null)),
    )
    .toSorted(sorts[sort]);
  const x = scaleLinear([span.from, span.to], [names, width]);
  const height = head + shown.length * row;
  const current = shown[at];
  const markers = markerSigns(load.median.markers, x).filter(
    ({ time }) => time >= span.from && time <= span.to,
  );
  const onWheel = (event: WheelEvent) => {
    if (!event.ctrlKey) return;
    event.preventDefault();
    const box = (event.currentTarget as SVGElement).getBoundingClientRect();
    const moment = x.invert(((event.clientX - box.left) / box.width) * width);
    const factor = event.deltaY < 0 ? 0.8 : 1.25;
    const from = Math.max(0, moment - (moment - span.from) * factor);
    const to = Math.min(whole.to, moment + (span.to - moment) * factor);
    setSpan(to - from >= whole.to * 0.98 ? null : { from, to });
  };
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    setAt(Math.max(0, Math.min(shown.length - 1, at + step)));
  };
  return (
    <>
      <div class="tools">
        <Choice label="Type" options={requestTypes} value={type} set={setType} />
        <Choice label="Host" options={hosts} value={host} set={setHost} />
        <Choice label="Status" options={['good', 'failed']} value={status} set={setStatus} />
        <label>
          Sort by{' '}
          <select
            value={sort}
            onChange={(event) => setSort(event.currentTarget.value as keyof typeof sorts)}
          >
            {Object.keys(sorts).map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
        <p class="faint" role="status">
          {count(shown.length, 'request')},{' '}
          {formatBytes(shown.reduce((sum, { transferBytes }) => sum + transferBytes, 0))}
        </p>
      </div>
      <p class="phases" aria-hidden="true">
        {phaseNames.map((name) => (
          <span key={name}>
            <i style={{ background: phaseColours[name] }} />
            {name}
          </span>
        ))}
      </p>
      <div
        class="waterfall"
        tabIndex={0}
        role="listbox"
        aria-label="Requests; arrow keys choose one"
        aria-activedescendant={current ? `request-${load.session.id}-${at}` : undefined}
        onKeyDown={onKey}
      >
        <svg viewBox={`0 0 ${width} ${height}`} onWheel={onWheel} role="presentation">
          {x.ticks(8).map((tick) => (
            <g key={tick} aria-hidden="true">
              <line class="grid" x1={x(tick)} x2={x(tick)} y1={head - 22} y2={height} />
              <text class="tick" x={x(tick)} y={head - 28} text-anchor="middle">
                {formatTime(tick)}
              </text>
            </g>
          ))}
          {shown.map((request, index) => (
            <g
              key={index}
              id={`request-${load.session.id}-${index}`}
              role="option"
              aria-selected={index === at}
              aria-label={spoken(request)}
              class={`request ${index === at ? 'chosen' : ''} ${request.status >= 400 || request.failure ? 'failed' : ''}`}
              onClick={() => setAt(index)}
              onPointerEnter={() => setAt(index)}
            >
              <rect class="band" x="0" y={head + index * row} width={width} height={row} />
              <text x="4" y={head + index * row + 14}>
                {shownName(request)}
              </text>
              <Phases request={request} x={x} top={head + index * row + 4} span={span} />
            </g>
          ))}
          {markers.map(({ letter, title, time, at, letterAt }) => (
            <g key={letter} class="marker">
              <line x1={at} x2={at} y1={head - 4} y2={height} />
              <text x={letterAt} y={head - 8} text-anchor="middle">
                {letter}
              </text>
              <title>
                {title}: {formatTime(time)}
              </title>
            </g>
          ))}
        </svg>
      </div>
      <p class="faint">
        {markerLines.map(([, letter, title]) => `${letter} ${title}`).join(', ')}. Ctrl and the
        wheel zoom.
      </p>
      {current && (
        <RequestDetail request={current} headers={headers[load.requests.indexOf(current)]} />
      )}
    </>
  );
}

function Choice(props: {
  readonly label: string;
  readonly options: readonly string[];
  readonly value: string;
  readonly set: (value: string) => void;
}) {
  return (
    <label>
      {props.label}{' '}
      <select value={props.value} onChange={(event) => props.set(event.currentTarget.value)}>
        <option value="">all</option>
        {props.options.map((option) => (
          <option key={option}>{option}</option>
        ))}
      </select>
    </label>
  );
}

function Phases(props: {
  readonly request: LoadRequest;
  readonly x: (moment: number) => number;
  readonly top: number;
  readonly span: Span;
}) {
  const { request, x, top, span } = props;
  let moment = request.start;
  return (
    <>
      {phaseNames.map((name) => {
        const [from, to] = [moment, moment + request.phases[name]];
        moment = to;
        const [left, right] = [Math.max(from, span.from), Math.min(to, span.to)];
        if (right <= left) return null;
        return (
          <rect
            key={name}
            x={x(left)}
            y={top}
            width={Math.max(0.5, x(right) - x(left))}
            height={row - 8}
            fill={phaseColours[name]}
          />
        );
      })}
    </>
  );
}

interface RequestDetailProps {
  readonly request: LoadRequest;
  readonly headers: RequestHeaders | undefined;
}

function RequestDetail({ request, headers }: RequestDetailProps) {
  return (
    <section class="request-detail" aria-live="polite">
      <h3 class="address">{request.url}</h3>
      <p>
        {request.method} {request.failure ?? request.status},{' '}
        {request.mediaType || 'of unknown type'}, {request.protocol}, priority {request.priority};{' '}
        {formatBytes(request.transferBytes)} on the wire, {formatBytes(request.bodyBytes)} in the
        browser
        {request.renderBlocking ? '; blocks rendering' : ''}
        {request.initiatedBy ? `; asked for by ${shortened(request.initiatedBy.url, 100)}` : ''}
      </p>
      <p>
        {phaseNames
          .filter((name) => request.phases[name] > 0)
          .map((name) => `${name} ${formatTime(request.phases[name])}`)
          .join(', ')}
      </p>
      {headers &&
        (['response', 'request'] as const).map((side) =>
          (headers[side]?.length ?? 0) > 0 ? (
            <details key={side}>
              <summary>Headers of the {side}</summary>
              <dl class="headers">
                {headers[side].map(({ name, value }, index) => (
                  <div key={index}>
                    <dt>{name}</dt>
                    <dd>{shortened(value, 600)}</dd>
                  </div>
                ))}
              </dl>
            </details>
          ) : null,
        )}
    </section>
  );
}

function lengthOf({ start, end }: LoadRequest): number {
  return end === null ? Infinity : end - start;
}

function hostOf(url: string): string {
  return URL.canParse(url) ? new URL(url).host : '';
}

function nameOf({ url, thirdParty }: LoadRequest): string {
  if (!URL.canParse(url)) return url;
  const { host, pathname, search } = new URL(url);
  return `${thirdParty ? host : ''}${pathname}${search}`;
}

/** What is seen of it in the waterfall. */
function shownName(request: LoadRequest): string {
  return `${typeLetters[request.type]} ${shortened(nameOf(request), 36)}`;
}

function spoken(request: LoadRequest): string {
  const end = request.end === null ? 'not ended' : `ended after ${formatTime(request.end)}`;
  return `${shownName(request)}, ${request.type}, began after ${formatTime(request.start)}, ${end}, ${formatBytes(request.transferBytes)}`;
}
