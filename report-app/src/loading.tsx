import { useState } from 'preact/hooks';
import type { ViewProps } from './view.js';
import { ComparedTable } from './compared.js';
import type { Load, Report, Trial } from './data.js';
import { FilmStrip } from './film-strip.js';
import { formatTime } from './numbers.js';
import { Waterfall } from './waterfall.js';
import type { Span } from './waterfall.js';

export function Loading({ report, selected, go }: ViewProps) {
  const { sessions } = report;
  const [other, setOther] = useState(-1);
  const [span, setSpan] = useState<Span | null>(null);
  if (sessions.length === 0)
    return (
      <p class="faint">
        No page of this survey was timed. Run zealous-lynx clock, and write the report again.
      </p>
    );
  const current = sessions[Number(selected)] && selected !== '' ? Number(selected) : 0;
  const shown = [current, other].filter((at, index) => index === 0 || (at >= 0 && at !== current));
  const whole = { from: 0, to: Math.max(...shown.map((at) => endOf(sessions[at]!))) };
  const within = span ?? whole;
  return (
    <>
      <div class="tools">
        <SessionChoice
          label="Session"
          sessions={sessions}
          value={current}
          onChoose={(at) => go('loading', String(at))}
        />
        <SessionChoice
          label="Above another"
          sessions={sessions}
          value={other}
          none="none"
          onChoose={setOther}
        />
        <ZoomButtons span={within} whole={whole} setSpan={setSpan} />
      </div>
      {shown.map((at) => (
        <section key={at} class="load">
          <h2>
            {sessions[at]!.session.label}: {sessions[at]!.session.page}
          </h2>
          <Waterfall
            load={sessions[at]!}
            headers={report.headers[at] ?? []}
            span={within}
            setSpan={setSpan}
            whole={whole}
          />
          <FilmStrip load={sessions[at]!} first={report.films[at] ?? 0} span={within} />
        </section>
      ))}
      <Comparisons report={report} />
      <Trials report={report} />
    </>
  );
}

function endOf({ requests, median, film }: Load): number {
  const ends = requests.flatMap(({ end }) => end ?? []);
  const frames = film?.frames.map(({ at }) => at) ?? [];
  return Math.max(100, median.markers.load ?? 0, ...ends, ...frames) * 1.02;
}

function SessionChoice(props: {
  readonly label: string;
  readonly sessions: readonly Load[];
  readonly value: number;
  readonly none?: string;
  readonly onChoose: (at: number) => void;
}) {
  return (
    <label>
      {props.label}{' '}
      <select
        value={props.value}
        onChange={(event) => props.onChoose(Number(event.currentTarget.value))}
      >
        {props.none && <option value={-1}>{props.none}</option>}
        {props.sessions.map(({ session, conditions }, at) => (
          <option key={at} value={at}>
            {session.label} · {session.page.replace(/^https?:\/\//, '')}
            {conditions
              ? ` · ${conditions.view.name}, ${conditions.network.name}, ${conditions.cache}`
              : ''}
          </option>
        ))}
      </select>
    </label>
  );
}

function ZoomButtons(props: {
  readonly span: Span;
  readonly whole: Span;
  readonly setSpan: (span: Span | null) => void;
}) {
  const { span, whole, setSpan } = props;
  const zoom = (factor: number) => {
    const middle = (span.from + span.to) / 2;
    const half = ((span.to - span.from) / 2) * factor;
    const from = Math.max(0, middle - half);
    const to = Math.min(whole.to, middle + half);
    setSpan(factor > 1 && to - from >= whole.to * 0.98 ? null : { from, to });
  };
  return (
    <div class="buttons" role="group" aria-label="Zoom">
      <button type="button" onClick={() => zoom(0.5)}>
        Zoom in
      </button>
      <button type="button" onClick={() => zoom(2)}>
        Zoom out
      </button>
      <button type="button" onClick={() => setSpan(null)}>
        Whole load
      </button>
      <span class="faint" role="status">
        {formatTime(span.from)} to {formatTime(span.to)}
      </span>
    </div>
  );
}

function Comparisons({ report: { comparisons } }: { readonly report: Report }) {
  if (comparisons.length === 0) return null;
  return (
    <section>
      <h2>Compared</h2>
      {comparisons.map((compared) => (
        <ComparedTable key={`${compared.before.id} ${compared.after.id}`} compared={compared} />
      ))}
    </section>
  );
}

function Trials({ report }: { readonly report: Report }) {
  const trials = report.trials as readonly Trial[];
  if (trials.length === 0) return null;
  return (
    <section>
      <h2>Tried before anybody deploys it</h2>
      {trials.map((trial, at) => (
        <div key={at}>
          <table class="plain">
            <caption>{trial.page}</caption>
            <thead>
              <tr>
                <th scope="col">fix</th>
                <th scope="col">changes</th>
                <th scope="col">largest paint, predicted</th>
                <th scope="col">load, predicted</th>
              </tr>
            </thead>
            <tbody>
              {trial.fixes.map(({ name, title, unit, changed, predicted }) => (
                <tr key={name}>
                  <th scope="row">
                    {name} <span class="faint">{title}</span>
                  </th>
                  <td>
                    {changed} {changed === 1 ? unit : `${unit}s`}
                  </td>
                  <td>{told(predicted?.largestContentfulPaint)}</td>
                  <td>{told(predicted?.load)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <ComparedTable compared={trial} />
        </div>
      ))}
    </section>
  );
}

function told(change: number | null | undefined): string {
  if (change === null || change === undefined) return '–';
  return `${change < 0 ? '−' : '+'}${formatTime(Math.abs(change))}`;
}
