import type { Compared } from './data.js';
import { formatBytes, formatTime, markerTitles } from './numbers.js';

const shown = ['ttfb', 'firstContentfulPaint', 'largestContentfulPaint', 'load'] as const;

const verdicts = {
  less: 'less',
  more: 'more',
  same: 'the same',
  open: 'not to be told apart',
} as const;

/** What became of a page, number by number. */
export function ComparedTable({ compared }: { readonly compared: Compared }) {
  const { before, after, markers, bytes, requestCount } = compared;
  const rows = [
    ...shown.map((name) => ({
      title: markerTitles[name],
      change: markers[name],
      format: formatTime,
    })),
    { title: 'bytes', change: bytes, format: formatBytes },
    {
      title: 'requests',
      change: requestCount,
      format: (number: number) => String(Math.round(number)),
    },
  ];
  return (
    <table class="plain compared">
      <caption>
        {before.page}: {before.label} and {after.label}
        {before.conditions
          ? `, ${before.conditions.view.name}, ${before.conditions.network.name}`
          : ''}
      </caption>
      <thead>
        <tr>
          <th scope="col">median</th>
          <th scope="col">before</th>
          <th scope="col">after</th>
          <th scope="col">change</th>
          <th scope="col">between (95 %)</th>
          <th scope="col">verdict</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ title, change, format }) => (
          <tr key={title}>
            <th scope="row">{title}</th>
            <td>{change.before ? format(change.before.median) : '–'}</td>
            <td>{change.after ? format(change.after.median) : '–'}</td>
            <td class={change.verdict === 'less' ? 'good' : change.verdict === 'more' ? 'bad' : ''}>
              {change.difference === null ? '–' : signed(change.difference, format)}
            </td>
            <td>
              {change.interval
                ? `${signed(change.interval[0], format)} … ${signed(change.interval[1], format)}`
                : '–'}
            </td>
            <td>{change.verdict ? verdicts[change.verdict] : 'too few loads'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

export function signed(value: number, format: (value: number) => string): string {
  return `${value < 0 ? '−' : '+'}${format(Math.abs(value))}`;
}
