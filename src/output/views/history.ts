import type { FieldDisagreement } from '../../core/history/disagreements.js';
import type { SurveyFigures } from '../../core/history/figures.js';
import type { Movement } from '../../core/history/movement.js';
import type { Series, SeriesStep } from '../../core/history/series.js';

/** What was measured of a site over time, as it is shown. */
export interface HistoryView {
  readonly hosts: readonly string[];
  /** The oldest first. */
  readonly surveys: readonly SurveyFigures[];
  /** Labels of those of which only the figures are left. */
  readonly thinned: readonly string[];
  /** Labels of surveys that say nothing: interrupted, or without any page. */
  readonly leftOut: readonly string[];
  readonly series: readonly Series[];
  /** What lies behind the difference of two surveys; `null` where there is only one. */
  readonly moved: Movement | null;
  /** The steps of all series, with what changed on the pages at that time; `null` where no survey tells. */
  readonly steps: readonly {
    readonly series: Series;
    readonly step: SeriesStep;
    readonly moved: Movement | null;
  }[];
  readonly disagreements: readonly FieldDisagreement[];
  /** The most rows of each list of what moved. */
  readonly top: number;
}
