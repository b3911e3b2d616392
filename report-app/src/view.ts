import type { Report } from './data.js';
import type { go } from './hash.js';

/** What every view is given. */
export interface ViewProps {
  readonly report: Report;
  /** What the address says is selected; empty for nothing. */
  readonly selected: string;
  readonly go: typeof go;
}
