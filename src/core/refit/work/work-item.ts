import type { Doer, FindingCode } from '../../findings/finding.js';

/** One decision of one person. */
export interface WorkItem {
  /** The same in every refit as long as the decision is about the same thing. */
  readonly id: string;
  readonly who: Doer;
  /** What is to be done, in words. */
  readonly what: string;
  /** Address of the image or of another file, or of the first of several. */
  readonly url: string;
  /** Images that it is about; of what is to be replaced, files; 0 where it is about none. */
  readonly images: number;
  /** The page group of its elements, or their page; `null` if it is not about elements. */
  readonly where: string | null;
  readonly pages: readonly string[];
  /** Finds an element that shows it; empty where none does. */
  readonly selector: string;
  readonly from: string;
  readonly to: string;
  /** What to write, where no file of the refit has it; `null` where words say what to do. */
  readonly code: FindingCode | null;
  /** Bytes saved on an average visit to the whole site; 0 for findings that cost no bytes. */
  readonly savedPerVisit: number;
}

/** An item before it has its id, which is made from its key. */
export type DraftItem = Omit<WorkItem, 'id' | 'code'> & {
  readonly key: string;
  readonly code?: FindingCode | undefined;
};
