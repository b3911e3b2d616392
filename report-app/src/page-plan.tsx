import { useMemo } from 'preact/hooks';
import type { Report, ReportView } from './data.js';
import { imageName, pictureAt } from './data.js';
import { formatBytes } from './numbers.js';

interface Box {
  readonly image: number;
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly waste: number;
}

const numbersPerBox = 6;

export function boxesOf({ boxes }: Pick<ReportView, 'boxes'>): Box[] {
  return Array.from({ length: Math.floor(boxes.length / numbersPerBox) }, (_, at) => {
    const [image, left, top, width, height, waste] = boxes.slice(
      at * numbersPerBox,
      (at + 1) * numbersPerBox,
    ) as [number, number, number, number, number, number];
    return { image, left, top, width, height, waste };
  });
}

interface PagePlanProps {
  readonly report: Report;
  /** Place in the list of pages. */
  readonly page: number;
  readonly view: ReportView;
  /** Images that are told apart from the others. */
  readonly marked?: ReadonlySet<number>;
  readonly small?: boolean;
}

/** Further down, pages are cut off: nobody looks at a picture of a hundred screens. */
const mostScreens = 12;

/**
 * A page as it is laid out: a photograph of its first screen, below it a plan, in which thumbnails stand where the images
 * do. The more a visit wastes on an image, the stronger is its outline.
 */
export function PagePlan({ report, page, view, marked, small = false }: PagePlanProps) {
  const boxes = useMemo(() => boxesOf(view), [view]);
  const screen = screenNumber(report, page, view.view);
  const photograph = screen < 0 ? undefined : pictureAt('screens', screen);
  const window = report.rank.survey.views.find(({ name }) => name === view.view);
  const width = Math.max(1, window?.width ?? view.width);
  const first = window?.height ?? 800;
  const most = Math.max(1, ...boxes.map(({ waste }) => waste));
  const height = Math.min(view.height, first * mostScreens);
  const sorted = boxes.filter(({ top }) => top < height).toSorted((a, b) => a.waste - b.waste);
  return (
    <figure class={`plan ${small ? 'small' : ''}`}>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`Plan of the page in the view ${view.view} with ${boxes.length} images`}
      >
        <rect class="paper" width={width} height={height} />
        {sorted
          .filter(({ top, height: down }) => !photograph || top + down > first)
          .map(({ image, left, top, width: across, height: down }, at) => {
            const thumbnail = pictureAt('thumbnails', image);
            return thumbnail ? (
              <image
                key={at}
                href={thumbnail}
                x={left}
                y={top}
                width={across}
                height={down}
                preserveAspectRatio="xMidYMid slice"
              />
            ) : null;
          })}
        {photograph && (
          <image
            class="photograph"
            href={photograph}
            width={width}
            height={first}
            preserveAspectRatio="none"
          />
        )}
        {sorted.map(({ image, left, top, width: across, height: down, waste }, at) => {
          const isMarked = marked === undefined || marked.has(image);
          const stroke = width * (0.002 + 0.01 * Math.sqrt(waste / most));
          return (
            <g key={at} class={isMarked ? 'box' : 'box pale'}>
              <rect
                x={left}
                y={top}
                width={across}
                height={down}
                stroke-width={stroke}
                class={waste > 0 ? 'waste' : 'fine'}
              >
                <title>
                  {imageName(report, image)}: {formatBytes(waste)} wasted by such a visit
                </title>
              </rect>
            </g>
          );
        })}
        {photograph && view.height > first && (
          <line class="fold" x1="0" x2={width} y1={first} y2={first} stroke-width={width * 0.003} />
        )}
      </svg>
      {view.height > height && <figcaption class="faint">The page goes on below.</figcaption>}
    </figure>
  );
}

const numbers = new WeakMap<Report, Map<string, number>>();

/** The number of a screen among the pictures: they are in the order of the pages' views. */
function screenNumber(report: Report, page: number, view: string): number {
  let known = numbers.get(report);
  if (!known) {
    known = new Map(report.screens.map((key, at) => [key, at]));
    numbers.set(report, known);
  }
  return known.get(`${page} ${view}`) ?? -1;
}
