import { useState } from 'preact/hooks';
import { Code } from './copy.js';
import type { Report } from './data.js';
import { pictureAt, shortAddress, snippetsFor } from './data.js';
import { causeTitles, count, formatBytes } from './numbers.js';
import { PagePlan } from './page-plan.js';
import { Slider } from './slider.js';
import { SlotCurve } from './slot-curve.js';

/** Images that are listed; the others are counted. */
const listed = 20;

export function FamilyDetail({ report, at }: { readonly report: Report; readonly at: number }) {
  const row = report.rank.rows[at]!;
  const { images, place } = report.families[at]!;
  const [chosen, setChosen] = useState(images[0] ?? -1);
  const image = report.rank.images[chosen];
  const fix = report.fixes[chosen];
  // The whole report lists only the images that waste the most.
  const more = row.files - Math.min(images.length, listed);
  const { family } = row;
  const page = place && report.pages[place.page];
  const view = page?.views.find((one) => one.view === place?.view);
  return (
    <div class="columns">
      <section>
        <h3>Its images</h3>
        <ul class="image-list">
          {images.slice(0, listed).map((one) => {
            const { url, file, bytes, neededBytes } = imageFacts(report, one);
            return (
              <li key={one}>
                <button type="button" aria-pressed={one === chosen} onClick={() => setChosen(one)}>
                  <span class="thumb">
                    {pictureAt('thumbnails', one) && (
                      <img src={pictureAt('thumbnails', one)} alt="" />
                    )}
                  </span>
                  <span class="words">
                    <span class="address">{shortAddress(report, url)}</span>
                    <span class="faint">
                      {file}: {formatBytes(bytes)} sent,{' '}
                      {neededBytes === null ? 'need unknown' : `${formatBytes(neededBytes)} needed`}
                    </span>
                  </span>
                </button>
              </li>
            );
          })}
          {more > 0 && <li class="faint">and {count(more, 'more image')}</li>}
        </ul>
        {family?.slotCurve && (
          <>
            <h3>The slot</h3>
            <SlotCurve curve={family.slotCurve} declared={declaredSizes(report, images)} />
            {family.sizes && <Code text={`sizes="${family.sizes}"`} what="sizes" />}
            <p class="faint">Widths to offer: {family.widths.join(', ')} px</p>
          </>
        )}
      </section>
      {image && fix && (
        <section>
          <h3>{shortAddress(report, image.url)}</h3>
          <Slider key={chosen} report={report} image={chosen} />
          <Causes causes={image.perVisit.causes} />
          <Needs report={report} image={chosen} />
          {fix.steps.length > 0 && (
            <>
              <h3>To do</h3>
              <ol>
                {fix.steps.map((step) => (
                  <li key={step}>{step}</li>
                ))}
              </ol>
            </>
          )}
          {page &&
            place &&
            snippetsFor(report, place.selector, page.url)
              .slice(0, 2)
              .map(({ text }) => <Code key={text} text={text} what="Markup to paste" />)}
          <Trials fix={fix} />
        </section>
      )}
      {page && view && (
        <section>
          <h3>Where it is</h3>
          <p>
            <a href={`#pages/${place.page}`}>{shortAddress(report, page.url)}</a> in the view{' '}
            {place.view}
          </p>
          <p class="address faint">{place.selector}</p>
          <PagePlan report={report} page={place.page} view={view} marked={new Set(images)} small />
        </section>
      )}
    </div>
  );
}

/** The `sizes` that an element of the family has now. */
function declaredSizes({ rank }: Report, images: readonly number[]): string | null {
  for (const image of images)
    for (const { markup } of rank.images[image]?.placements ?? [])
      if (markup?.sizes) return markup.sizes;
  return null;
}

function imageFacts(report: Report, at: number) {
  const { url, mediaType, intrinsic, bytes, neededBytes } = report.rank.images[at]!;
  const pixels = intrinsic ? `, ${intrinsic.width} × ${intrinsic.height}` : '';
  return { url, file: mediaType.replace('image/', '') + pixels, bytes, neededBytes };
}

function Causes({ causes }: { readonly causes: Readonly<Record<string, number>> }) {
  const shown = Object.entries(causes).filter(([, bytes]) => bytes > 0);
  if (shown.length === 0) return null;
  return (
    <p>
      Wasted on an average visit:{' '}
      {shown
        .map(
          ([cause, bytes]) =>
            `${formatBytes(bytes)} ${causeTitles[cause as keyof typeof causeTitles]}`,
        )
        .join(', ')}
      .
    </p>
  );
}

/** What each view needs of an image, at most once. */
function Needs({ report, image }: { readonly report: Report; readonly image: number }) {
  const { placements } = report.rank.images[image]!;
  const leftOut = report.placementsLeftOut[image] ?? 0;
  if (placements.length === 0) return <p class="faint">No element on any page shows it.</p>;
  return (
    <table class="plain">
      <thead>
        <tr>
          <th scope="col">page</th>
          <th scope="col">view</th>
          <th scope="col">rendered</th>
          <th scope="col">need</th>
          <th scope="col">loading</th>
        </tr>
      </thead>
      <tbody>
        {placements.map(({ page, view, rendered, need, loading, shown }, at) => (
          <tr key={at}>
            <td class="address">{shortAddress(report, page)}</td>
            <td>{view}</td>
            <td>
              {shown
                ? `${Math.round(rendered.width)} × ${Math.round(rendered.height)}`
                : 'not shown'}
            </td>
            <td>{need ? `${need.width} × ${need.height}` : '–'}</td>
            <td>{loading}</td>
          </tr>
        ))}
        {leftOut > 0 && (
          <tr>
            <td colSpan={5} class="faint">
              and {count(leftOut, 'more placement')}
            </td>
          </tr>
        )}
      </tbody>
    </table>
  );
}

function Trials({ fix: { trials, nature, encodedAt } }: { readonly fix: Report['fixes'][number] }) {
  if (trials.length === 0) return null;
  return (
    <details>
      <summary>
        {count(trials.length, 'encode')} tried
        {encodedAt ? ` at ${encodedAt.width} × ${encodedAt.height}` : ''}, as a {nature}
      </summary>
      <table class="plain">
        <thead>
          <tr>
            <th scope="col">format</th>
            <th scope="col">quality</th>
            <th scope="col">bytes</th>
            <th scope="col">similarity</th>
          </tr>
        </thead>
        <tbody>
          {trials.map(({ format, quality, bytes, similarity }, at) => (
            <tr key={at}>
              <td>{format}</td>
              <td>{quality ?? 'all pixels'}</td>
              <td>{formatBytes(bytes)}</td>
              <td>{similarity === 1 ? '1' : similarity.toFixed(4)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
