import type { PlacedImage } from '../findings/image/image-case.js';
import { groupBy } from '../base/group-by.js';
import type { Policy } from '../policy/policy.js';
import type { Ranking } from '../rank/ranking.js';
import { renderedSize } from '../slots/rendered-size.js';
import { slotOf } from '../slots/family-key.js';
import { sizesText } from '../slots/sizes-text.js';
import { parseSizes } from '../slots/source-sizes.js';
import { chosenWidth } from '../slots/srcset.js';
import { planWidths, usualSlack } from '../slots/width-plan.js';
import type { Demand } from '../slots/width-plan.js';
import type { View } from '../visitors/view.js';
import { offersOwnWidths, ownCandidates, sizesAreWrong } from './own-widths.js';
import type { OwnCandidate } from './own-widths.js';
import { narrower } from './refit-widths.js';
import { leastBytes, successorOf } from './refit-job.js';
import type { MadeJob } from './refit-job.js';

/** A slot family whose elements choose among widths that the site offers itself. */
export interface OwnWidthsFamily {
  /** Page group, or the address of a page. */
  readonly where: string;
  readonly slot: string;
  readonly pages: readonly string[];
  readonly selector: string;
  /** Addresses that its elements chose, each once. */
  readonly urls: readonly string[];
  /** The texts that `sizes` should be, each with the number of elements that need it; none where they are right. */
  readonly sizes: readonly { readonly text: string; readonly elements: number }[];
  readonly declared: string | null;
  /** The widths that the site should make of these pictures; the largest need first served. */
  readonly widths: readonly number[];
  /** Bytes that an average visit saves by right `sizes`, with the files that are there. */
  readonly sizesSaved: number;
  /** Bytes that it saves by those widths, after everything else. */
  readonly widthsSaved: number;
}

/**
 * What mends images whose site offers several widths of them, in the order in which it is done: each step saves what the
 * steps before it leave, so that the savings add up.
 */
export interface OwnWidthsPlan {
  readonly families: readonly OwnWidthsFamily[];
  /** Bytes that an average visit saves once the candidates are encoded again at their own width, in their own format. */
  readonly encodingSaved: number;
  /** Bytes that it saves beyond that if the server sends modern formats to browsers that accept them. */
  readonly formatSaved: number;
  /** Candidates whose bytes nobody knows: the visits that would get them count as unchanged. */
  readonly unknown: readonly string[];
}

/** One element in one view. */
interface Choice {
  readonly placed: PlacedImage;
  readonly candidates: readonly OwnCandidate[];
  readonly view: View;
  readonly family: FamilySum;
  /** The address that it chose, and the one that it would choose with right `sizes`. */
  readonly now: string;
  readonly then: string;
}

interface FamilySum {
  readonly key: { readonly where: string; readonly slot: string };
  readonly placed: PlacedImage[];
  readonly texts: Map<string, Set<string>>;
  readonly demands: Demand[];
  sizesSaved: number;
  widthsSaved: number;
}

/**
 * @param bytesOf the bytes of the file at an address; `undefined` where nobody knows them
 * @param jobs what has been made of the files, by address
 */
export function planOwnWidths(
  { images, ledger }: Pick<Ranking, 'images' | 'ledger'>,
  policy: Policy,
  bytesOf: (url: string) => number | undefined,
  jobs: ReadonlyMap<string, MadeJob>,
): OwnWidthsPlan {
  const { head, pages, visits } = ledger.facts;
  const views = new Map(head.views.map((view) => [view.name, view]));
  const groups = new Map(pages.map(({ url, group }) => [url, group]));
  const weightOf = new Map(
    visits.map(({ page, view }, at) => [`${page}\n${view}`, ledger.weights[at]!] as const),
  );
  const families = new Map<string, FamilySum>();
  const choices = images
    .filter(({ thirdParty }) => !thirdParty)
    .flatMap(({ placed }) => placed)
    .filter((placed) => placed.shown && offersOwnWidths(placed))
    .flatMap((placed): Choice[] => {
      const view = views.get(placed.view);
      const candidates = ownCandidates(placed);
      if (!view || candidates.length < 2) return [];
      const where = groups.get(placed.page) ?? placed.page;
      const slot = slotOf(placed.selector);
      const key = `${where}\n${slot}`;
      const family = families.get(key) ?? emptyFamily(where, slot);
      families.set(key, family);
      family.placed.push(placed);
      return [{ placed, candidates, view, family, ...chosen(placed, candidates, view, family) }];
    });
  const unknown = new Set<string>();
  let encodingSaved = 0;
  let formatSaved = 0;
  for (const some of groupBy(choices, visitAndPicture).values()) {
    const [{ placed }] = some as [Choice];
    const weight = weightOf.get(`${placed.page}\n${placed.view}`) ?? 0;
    const [now, then] = [urlsOf(some, 'now'), urlsOf(some, 'then')];
    const missing = [...now, ...then].filter((url) => bytesOf(url) === undefined);
    for (const url of missing) unknown.add(url);
    const kept = missing.length > 0 ? now : then;
    const saved = sum(now, bytesOf) - sum(kept, bytesOf);
    const changed = some.filter(({ now: one, then: other }) => one !== other);
    for (const { family } of changed) family.sizesSaved += (saved * weight) / changed.length;
    for (const url of kept) {
      const job = jobs.get(url);
      if (!job) continue;
      const bytes = bytesOf(url) ?? 0;
      const own = successorOf(job)?.bytes ?? bytes;
      encodingSaved += weight * (bytes - own);
      formatSaved += weight * Math.max(0, own - leastBytes(job));
    }
    addWidths(some, kept, weight, policy, jobs);
  }
  return {
    families: [...families.values()].map((family) => familyOf(family, policy)),
    ...{ encodingSaved, formatSaved, unknown: [...unknown].sort() },
  };
}

function emptyFamily(where: string, slot: string): FamilySum {
  return {
    ...{ key: { where, slot }, placed: [], texts: new Map(), demands: [] },
    ...{ sizesSaved: 0, widthsSaved: 0 },
  };
}

/** The address that an element chose, and the one that it would choose if `sizes` said its slot. */
function chosen(
  placed: PlacedImage,
  candidates: readonly OwnCandidate[],
  view: View,
  { texts }: FamilySum,
): Pick<Choice, 'now' | 'then'> {
  const now = placed.url;
  const curve = placed.curve();
  if (!curve?.length || !sizesAreWrong(placed)) return { now, then: now };
  const text = sizesText(curve);
  const elements = texts.get(text) ?? new Set();
  texts.set(text, elements.add(`${placed.page}\n${placed.selector}`));
  const size = parseSizes(text)?.(view.width) ?? 0;
  if (size <= 0) return { now, then: now };
  const widths = candidates.map(({ width }) => width);
  const width = chosenWidth(widths, size * view.density);
  return { now, then: candidates.find((one) => one.width === width)?.url ?? now };
}

function visitAndPicture({ placed, candidates }: Choice): string {
  return [placed.page, placed.view, ...candidates.map(({ url }) => url)].join('\n');
}

function urlsOf(choices: readonly Choice[], which: 'now' | 'then'): string[] {
  return [...new Set(choices.map((choice) => choice[which]))];
}

function sum(urls: readonly string[], bytesOf: (url: string) => number | undefined): number {
  return urls.reduce((all, url) => all + (bytesOf(url) ?? 0), 0);
}

/** Adds what a candidate of just the width that is needed would save, of the files as they are by then. */
function addWidths(
  choices: readonly Choice[],
  kept: readonly string[],
  weight: number,
  policy: Policy,
  jobs: ReadonlyMap<string, MadeJob>,
): void {
  for (const url of kept) {
    const users = choices.filter(({ then, now }) => (kept.includes(then) ? then : now) === url);
    const job = jobs.get(url);
    if (!job || users.length === 0) continue;
    const { width: wide, height: high } = job.file.from;
    if (wide === null || high === null) continue;
    const natural = { width: wide, height: high };
    const most = Math.max(...users[0]!.candidates.map(({ width }) => width));
    const needs = users.map(({ placed, view }) => {
      const { width } = renderedSize(placed, natural);
      return Math.min(most, Math.ceil(width * Math.min(view.density, policy.density) - 0.01));
    });
    const width = Math.max(1, ...needs);
    const bytes = leastBytes(job);
    const bytesAt = (pixels: number) => weight * bytes * (pixels / wide) ** (2 * usualExponent);
    const { family } = users[0]!;
    family.demands.push({ width, bytesAt });
    family.widthsSaved += Math.max(0, weight * bytes - bytesAt(width));
  }
}

/** How bytes follow pixels between the widths of one picture, where no encode says it. */
const usualExponent = 0.8;

/** Neighbours that are less than a tenth apart as the larger of them. */
function apart(widths: readonly number[]): number[] {
  return widths.length === 0 ? [] : narrower(widths, Math.max(...widths), 0);
}

function familyOf(family: FamilySum, policy: Pick<Policy, 'widths'>): OwnWidthsFamily {
  const { key, placed, texts, demands, sizesSaved, widthsSaved } = family;
  return {
    ...key,
    pages: [...new Set(placed.map(({ page }) => page))],
    selector: placed[0]!.selector,
    urls: [...new Set(placed.map(({ url }) => url))],
    sizes: [...texts]
      .map(([text, elements]) => ({ text, elements: elements.size }))
      .sort((a, b) => b.elements - a.elements),
    declared: placed[0]!.markup?.sizes ?? null,
    widths: apart(planWidths(demands, policy.widths, usualSlack).widths),
    ...{ sizesSaved, widthsSaved },
  };
}
