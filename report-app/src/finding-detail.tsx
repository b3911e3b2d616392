import { Code } from './copy.js';
import type { Found, Report } from './data.js';
import { shortAddress } from './data.js';
import { count, formatBytes, formatTime } from './numbers.js';

/** Pages that are named; the others are counted. */
const named = 12;

export function FindingDetail({
  report,
  found,
}: {
  readonly report: Report;
  readonly found: Found;
}) {
  const { id, message, fix, step, code, url, pages, bytesPerVisit, timePerVisit } = found;
  const more = pages.length - named;
  return (
    <div class="columns">
      <section>
        <h3>Found</h3>
        <p>
          <span class="address">{shortAddress(report, url)}</span> {message}.
        </p>
        <p>
          {bytesPerVisit === null
            ? ''
            : `An average visit would not be sent ${formatBytes(bytesPerVisit)}. `}
          {timePerVisit === null
            ? ''
            : `An average visit would be spared ${formatTime(timePerVisit)}.`}
        </p>
        <h3>What to do</h3>
        <p>
          {step ? `${step.charAt(0).toUpperCase()}${step.slice(1)}. ` : ''}
          {fix}
        </p>
        {code && <Code text={code.text} what="What to write" />}
        <p class="faint">Finding {id}</p>
      </section>
      <section>
        <h3>{count(pages.length, 'page')}</h3>
        <ul class="addresses">
          {pages.slice(0, named).map((page) => (
            <li key={page}>
              <a href={`#pages/${page}`}>{shortAddress(report, report.pages[page]!.url)}</a>
            </li>
          ))}
          {more > 0 && <li class="faint">and {count(more, 'more page')}</li>}
        </ul>
      </section>
    </div>
  );
}
