import type { FieldDisagreement } from '../../core/history/disagreements.js';
import type { SurveyFigures } from '../../core/history/figures.js';
import type { Movement } from '../../core/history/movement.js';
import type { Series, SeriesStep } from '../../core/history/series.js';

/** What was measured of a site over time, as it is shown. */
export interface HistoryView {
  readonly hosts: readonly string[];
  /** The oldest first. */
  readonly surveys: readonly SurveyFigures[];
  readonly thinned: readonly string[];
  readonly leftOut: readonly string[];
  readonly series: readonly Series[];
  readonly moved: Movement | null;
  readonly steps: readonly {
    readonly series: Series;
    readonly step: SeriesStep;
    readonly moved: Movement | null;
  }[];
  readonly disagreements: readonly FieldDisagreement[];
  /** The most rows of each list of what moved. */
  readonly top: number;
}
