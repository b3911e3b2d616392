import { scaleLinear } from 'd3-scale';
import { area, curveStepAfter, line } from 'd3-shape';
import type { ViewProps } from './view.js';
import { PartBar } from './bars.js';
import { ComparedTable } from './compared.js';
import type { Report } from './data.js';
import { causeTitles, count, formatBytes, formatShare, requestTypes } from './numbers.js';

export function Overview({ report }: ViewProps) {
  const { perVisit } = report.rank;
  return (
    <>
      <section class="words" aria-label="In words">
        {report.sentences.map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
      </section>
      <div class="cards">
        <section>
          <h2>Images of an average visit</h2>
          <dl class="numbers">
            <Number name="sent" bytes={perVisit.sentBytes} />
            <Number name="needed" bytes={perVisit.neededBytes} />
            <Number name="wasted" bytes={perVisit.wasteBytes} />
          </dl>
          <PartBar
            label="Waste by cause"
            parts={[
              { name: 'needed', bytes: perVisit.neededBytes, look: 'look-needed' },
              ...Object.entries(perVisit.causes).map(([cause, bytes]) => ({
                ...{ name: causeTitles[cause as keyof typeof causeTitles], bytes },
                look: `look-${cause}`,
              })),
            ]}
          />
        </section>
        <section>
          <h2>What the first fixes bring</h2>
          <FixCurve report={report} />
        </section>
        <section>
          <h2>Weight of an average page by type</h2>
          <PartBar label="Weight by type" parts={weightByType(report)} />
        </section>
        <section>
          <h2>Who is surveyed for</h2>
          <Audience report={report} />
        </section>
      </div>
      {report.comparisons.length > 0 && (
        <section>
          <h2>Before and after</h2>
          {report.comparisons.slice(0, 6).map((compared) => (
            <ComparedTable key={`${compared.before.id} ${compared.after.id}`} compared={compared} />
          ))}
        </section>
      )}
    </>
  );
}

function Number({ name, bytes }: { readonly name: string; readonly bytes: number }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd>{formatBytes(bytes)}</dd>
    </div>
  );
}

/** The mean of all pages in their heaviest view. */
function weightByType({ pages }: Report) {
  const measured = pages.filter(({ error }) => error === null);
  return requestTypes.map((type) => ({
    name: type,
    bytes: Math.round(
      measured.reduce((sum, { bytesByType }) => sum + bytesByType[type], 0) /
        Math.max(1, measured.length),
    ),
    look: `look-${type}`,
  }));
}

const chart = { width: 460, height: 150, left: 64, right: 12, top: 12, bottom: 34 };
/** More fixes than this are not told apart in a picture of this width. */
const mostFixes = 400;

function FixCurve({ report: { curve, rank } }: { readonly report: Report }) {
  const all = curve.at(-1) ?? 0;
  const others = rank.perVisit.thirdParty.wasteBytes;
  if (all === 0) return <p class="faint">There is nothing to win.</p>;
  const shown = curve.slice(0, mostFixes);
  const x = scaleLinear(
    [0, Math.max(1, shown.length - 1)],
    [chart.left, chart.width - chart.right],
  );
  const y = scaleLinear([0, all], [chart.height - chart.bottom, chart.top]);
  const most = curve.findIndex((bytes) => bytes >= all * 0.8);
  const points = shown.map((bytes, at): [number, number] => [x(at), y(bytes)]);
  const shape = area<[number, number]>(
    ([left]) => left,
    y(0),
    ([, top]) => top,
  ).curve(curveStepAfter);
  const edge = line<[number, number]>().curve(curveStepAfter);
  return (
    <figure>
      <svg
        viewBox={`0 0 ${chart.width} ${chart.height}`}
        class="chart"
        role="img"
        aria-label={`After ${count(most, 'fix', 'fixes')} of ${curve.length - 1}, four fifths of ${formatBytes(all)} are won`}
      >
        {[0, 0.5, 1].map((share) => (
          <g key={share}>
            <line
              class="grid"
              x1={chart.left}
              x2={chart.width - chart.right}
              y1={y(all * share)}
              y2={y(all * share)}
            />
            <text x={chart.left - 8} y={y(all * share) + 4} text-anchor="end">
              {formatBytes(Math.round(all * share))}
            </text>
          </g>
        ))}
        <path d={shape(points) ?? ''} class="area" />
        <path d={edge(points) ?? ''} class="curve" />
        {most < shown.length && (
          <g>
            <line class="mark" x1={x(most)} x2={x(most)} y1={y(0)} y2={y(curve[most] ?? 0)} />
            <circle class="dot" cx={x(most)} cy={y(curve[most] ?? 0)} r="4" />
          </g>
        )}
        {x
          .ticks(Math.min(6, shown.length))
          .filter((tick) => tick % 1 === 0)
          .map((tick) => (
            <text key={tick} x={x(tick)} y={chart.height - 12} text-anchor="middle">
              {tick}
            </text>
          ))}
      </svg>
      <figcaption class="faint">
        Bytes of an average visit saved, by the number of fixes (slot families, the largest first).{' '}
        {count(most, 'fix', 'fixes')} of {curve.length - 1} win four fifths of it.
        {others > 0 ? ` Another ${formatBytes(others)} of waste comes from third parties.` : ''}
      </figcaption>
    </figure>
  );
}

function Audience({ report: { rank, findings } }: { readonly report: Report }) {
  const { survey } = rank;
  return (
    <>
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">view</th>
            <th scope="col">window</th>
            <th scope="col">density</th>
            <th scope="col">share of visits</th>
          </tr>
        </thead>
        <tbody>
          {survey.views.map(({ name, width, height, density, share }) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td>
                {width} × {height}
              </td>
              <td>{density}</td>
              <td>{formatShare(share, 1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p class="faint">
        {count(survey.pages, 'page')} from {survey.starts.join(', ')};{' '}
        {rank.weights.unweighted
          ? 'every visit counts the same'
          : rank.weights.visitsAMonth
            ? `weighed by ${count(Math.round(rank.weights.visitsAMonth), 'visit')} a month`
            : 'every page counts the same'}
        . {count(findings.findings.length, 'kind')} of findings
        {findings.muted.length > 0 ? `, ${findings.muted.length} muted by policy` : ''}.
      </p>
    </>
  );
}
