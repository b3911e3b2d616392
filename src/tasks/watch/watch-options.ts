import type { Budget } from '../../core/budgets/budget.js';
import type { RoundView } from '../../output/views/round.js';
import type { ClockOptions } from '../clock/clock-options.js';
import type { SurveyOptions } from '../survey/survey-options.js';
import type { AlarmChannel } from './channels/channel.js';

/** What a watch does, again and again. */
export interface WatchOptions {
  /** Starts of the survey. */
  readonly starts: readonly string[];
  readonly survey: Omit<SurveyOptions, 'label' | 'signal' | 'onProgress'>;
  /** Every how many rounds the survey visits all pages; in between it visits what may have changed. */
  readonly fullEvery: number;
  /** The pages that are loaded and timed, and how; none where there is nothing to clock. */
  readonly clock: {
    readonly pages: readonly string[];
    readonly options: Omit<ClockOptions, 'label' | 'signal' | 'onProgress'>;
  };
  /** What the labels of surveys and sessions begin with, and what they are for a round that begins now. */
  readonly label: string;
  readonly labelOf: (startedAt: string) => string;
  readonly budgets: readonly Budget[];
  readonly field?: string | undefined;
  readonly channels: readonly AlarmChannel[];
  /** Surveys that stay whole; older ones are thinned out. All where nothing is said. */
  readonly keep?: number | undefined;
  /** Milliseconds from the beginning of one round to that of the next; `null` for a single round. */
  readonly every: number | null;
  readonly signal: AbortSignal;
  readonly onProgress: NonNullable<SurveyOptions['onProgress']>;
  readonly onTrace: NonNullable<SurveyOptions['onTrace']>;
  readonly onNotice: NonNullable<SurveyOptions['onNotice']>;
  /** Told what a person should know each time, in words. */
  readonly onRemark: (words: string) => void;
  /** Told of each round. */
  readonly onRound: (round: RoundView) => Promise<void>;
}
