import type { RequestType } from '../load/request.js';

/** Kinds of images by the room that they take: as wide as the window, small, and all between. */
export const imageRoles = ['hero', 'content', 'small'] as const;
export type ImageRole = (typeof imageRoles)[number];

/** The side of a site that bytes come from. */
export const budgetParties = ['own', 'third'] as const;

/** Which bytes, requests, images and findings a budget is about; all if nothing is said. */
export interface BudgetFilters {
  readonly type?: RequestType | undefined;
  readonly image?: ImageRole | undefined;
  readonly party?: (typeof budgetParties)[number] | undefined;
  /** Pattern of host names. */
  readonly host?: string | undefined;
  /** Id of a kind of finding. */
  readonly finding?: string | undefined;
}
