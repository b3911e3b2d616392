import type { PlacedImage } from '../../findings/image/image-case.js';
import { groupBy } from '../../base/group-by.js';
import type { RankedImage } from '../../rank/ranked-image.js';
import { elementText } from '../../slots/element-markup.js';
import type { ElementMarkup } from '../../slots/element-markup.js';
import { slotOf } from '../../slots/family-key.js';
import { sizesText } from '../../slots/sizes-text.js';
import { boxOf, boxRules } from './element-box.js';
import { changesBetween } from './element-changes.js';
import type { ElementChange } from './element-changes.js';
import { elementKey } from './element-images.js';
import type { ElementImages } from './element-images.js';
import { widestCurve } from '../plan/widest-curve.js';
import { loadingChange } from './loading.js';
import { mendedSizes, offersOwnWidths } from '../plan/own-widths.js';
import { addressOf, offersOf, refittedElement, withSizes } from './refitted-element.js';
import type { AttributeValues, MarkupForm, Offer } from './refitted-element.js';
import type { MadeJob } from '../refit-job.js';

/** An element that a snippet is for. */
export interface SnippetPlace {
  readonly page: string;
  readonly selector: string;
}

/** The markup to write in place of the present one. */
export interface Snippet {
  /** Address of the original. */
  readonly url: string;
  readonly places: readonly SnippetPlace[];
  /** The page group of these places, or the page; with `slot`, their slot family. */
  readonly where: string;
  readonly slot: string;
  readonly language: 'html' | 'css';
  /** What it replaces: a whole element, or the addresses of the picture in a style. */
  readonly replaces: 'element' | 'url';
  readonly text: string;
  /** The element as it stands in these pages; `null` for styles. */
  readonly before: string | null;
  /** The element as it should be; `null` for styles. */
  readonly after: ElementMarkup | null;
  /** What to hand out if this does not hold in its page; `null` for nothing. */
  readonly orElse: Snippet | null;
  /** The same as single changes; none for styles. */
  readonly changes: readonly ElementChange[];
}

/** Elements that need a change for which there is no snippet, and why. */
export interface WithheldSnippet {
  readonly url: string;
  readonly places: readonly SnippetPlace[];
  readonly reason: string;
}

export interface Snippets {
  readonly snippets: readonly Snippet[];
  readonly withheld: readonly WithheldSnippet[];
}

/** Snippets that held where they were tried, and those that could not be tried. */
export interface ProvedSnippets extends Snippets {
  /** Snippets that were tried in a page, in every view. */
  readonly proved: ReadonlySet<Snippet>;
  /** Why the others were not, each reason once. */
  readonly untried: readonly string[];
}

/** Rules that let snippets fit any layout: the site's own style sheets take precedence. */
export const snippetRules = [
  ':where(picture) { display: contents; }',
  ':where(picture > source) { display: none; }',
  boxRules,
].join('\n');

/** The inputs of snippets besides the files made. */
export interface SnippetContext {
  /** The page group of each page. */
  readonly groups: ReadonlyMap<string, string | null>;
  readonly elements: ElementImages;
  readonly form: (image: RankedImage) => MarkupForm;
  /** Device pixels to one CSS pixel that dense screens are served. */
  readonly density: number;
  /** Whether the server chooses the format of an image by what the browser accepts. */
  readonly isNegotiated: (image: RankedImage) => boolean;
}

/** One element on one page, in all views that show it. */
interface PageElement {
  readonly place: SnippetPlace;
  /** Where it shows the image that the snippet is made from. */
  readonly own: PlacedImage;
  readonly placed: readonly PlacedImage[];
  readonly element: ElementMarkup | null;
  readonly loading: AttributeValues;
}

/**
 * The markup and styles that show an image as it should be. Elements get the refitted files, or, where the site offers
 * several widths itself, the right `sizes`; and the right time of loading. Everything else of an element stays. There is
 * one snippet for all elements of a slot family that are the same.
 *
 * @param job `null` if no file was made of the image
 */
export function snippetsOf(
  image: RankedImage,
  job: MadeJob | null,
  context: SnippetContext,
): Snippets {
  if (job?.file.to.format === 'svg') return { snippets: [], withheld: [] };
  const shown = image.placed.filter(
    (placed) => placed.shown && !context.elements.isSuperseded(image, placed),
  );
  const drafts = [...familiesOf(shown, context).values()].map((family) =>
    draftOf(image, job, family, context),
  );
  const styles = job ? styleSnippets(image, job, shown, context) : [];
  return {
    snippets: [...drafts.flatMap((draft) => (draft && 'text' in draft ? draft : [])), ...styles],
    withheld: drafts.flatMap((draft) => (draft && 'reason' in draft ? draft : [])),
  };
}

/** The elements that one snippet can serve: the same markup in the same slot, loaded at the same time. */
function familiesOf(
  shown: readonly PlacedImage[],
  { groups, elements: chosen }: SnippetContext,
): Map<string, PageElement[]> {
  const elements = groupBy(
    shown.filter(({ kind }) => kind === 'img'),
    elementKey,
  );
  const found = [...elements.values()].map(([own]): PageElement => {
    const { page, selector, element } = own!;
    const placed = chosen.inAllViews(own!);
    const loading = loadingChange(placed);
    return { place: { page, selector }, own: own!, placed, element, loading };
  });
  return groupBy(found, ({ place: { page, selector }, element, loading }) =>
    JSON.stringify([whereOf(page, groups), slotOf(selector), element, loading]),
  );
}

function whereOf(page: string, groups: SnippetContext['groups']): string {
  return groups.get(page) ?? page;
}

function draftOf(
  image: RankedImage,
  job: MadeJob | null,
  family: readonly PageElement[],
  { groups, form, isNegotiated, density }: SnippetContext,
): Snippet | WithheldSnippet | null {
  const [{ element, loading, place, own }] = family as [PageElement];
  const placed = family.flatMap((one) => one.placed);
  const about = { url: image.url, places: family.map((one) => one.place) };
  const isOwn = placed.some(offersOwnWidths);
  if (!isOwn && !job) return null;
  if (!element) return { ...about, reason: 'the survey did not keep its markup' };
  const curve = widestCurve(placed);
  const sizes = curve && sizesText(curve);
  const draft = (after: ElementMarkup, orElse: Snippet | null): Snippet | null => {
    const [before, text] = [element, after].map(elementText) as [string, string];
    if (before === text || text === orElse?.text) return orElse;
    return {
      ...{ ...about, where: whereOf(place.page, groups), slot: slotOf(place.selector) },
      ...{ language: 'html', replaces: 'element', text, before, after, orElse },
      changes: changesBetween(element, after),
    };
  };
  try {
    if (isOwn) {
      const [capped, plain] = [mendedSizes(placed, density), mendedSizes(placed, null)];
      return draft(
        withSizes(element, capped, loading),
        draft(withSizes(element, plain, loading), null),
      );
    }
    const after = refittedElement(element, job!, {
      ...{ form: form(image), negotiated: isNegotiated(image), sizes },
      attributes: { ...boxOf(image, own, element), ...loading },
    });
    return draft(after, null);
  } catch (error) {
    return { ...about, reason: (error as Error).message };
  }
}

function styleSnippets(
  image: RankedImage,
  job: MadeJob,
  shown: readonly PlacedImage[],
  { groups }: SnippetContext,
): Snippet[] {
  const styled = shown.filter(({ kind }) => kind === 'background');
  const [common, modern] = [false, true].map((best) =>
    offersOf(job).findLast(({ format }) => (format === job.file.to.format) === best),
  );
  if (styled.length === 0 || !common || !modern) return [];
  const places = styled.map(({ page, selector }) => ({ page, selector }));
  return [
    {
      url: image.url,
      places: [...new Map(places.map((place) => [elementKey(place), place])).values()],
      where: whereOf(styled[0]!.page, groups),
      slot: slotOf(styled[0]!.selector),
      ...{ language: 'css', replaces: 'url', before: null, after: null, orElse: null, changes: [] },
      text: styleText(job, modern, common),
    },
  ];
}

function styleText(job: MadeJob, modern: Offer, common: Offer): string {
  const image = (offer: Offer) => `url("${addressOf(job, offer)}") type("image/${offer.format}")`;
  return `image-set(${image(modern)}, ${image(common)})`;
}
