import type { Size } from '../base/size.js';

/** One way of looking at a page: a viewport in CSS pixels, and how much of the audience has it. */
export interface View extends Size {
  readonly name: string;
  /** Device pixels to one CSS pixel. */
  readonly density: number;
  readonly touch: boolean;
  /** Share of the audience, 0 to 1; the shares of all views add up to 1. */
  readonly share: number;
}

/** The default views. */
export const defaultViews: readonly View[] = [
  { name: 'phone', width: 390, height: 844, density: 3, touch: true, share: 0.55 },
  { name: 'tablet', width: 820, height: 1180, density: 2, touch: true, share: 0.07 },
  { name: 'laptop', width: 1366, height: 768, density: 1, touch: false, share: 0.23 },
  { name: 'desktop', width: 1920, height: 1080, density: 1, touch: false, share: 0.15 },
];

/** Some of several views, with shares that add up to 1 again. */
export function chooseViews(views: readonly View[], names: readonly string[]): View[] {
  const chosen = views.filter(({ name }) => names.includes(name));
  const sum = chosen.reduce((all, { share }) => all + share, 0);
  return chosen.map((view) => ({ ...view, share: sum > 0 ? view.share / sum : 1 / chosen.length }));
}
