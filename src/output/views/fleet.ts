/** The surveys that workers are at, and the workers. */
export interface FleetView {
  readonly surveys: readonly FleetSurveyView[];
  readonly workers: readonly FleetWorkerView[];
}

export interface FleetSurveyView {
  readonly label: string;
  /** ISO 8601, UTC. */
  readonly startedAt: string;
  readonly pages: number;
  /** Of the pages, those that could not be loaded. */
  readonly failed: number;
  /** Pages as far as they are known, at most as many as the survey may have. */
  readonly total: number;
  /** Whether more pages may yet be found. */
  readonly mayGrow: boolean;
  /** Versions that its pages are measured with; `null` before the first. */
  readonly measures: string | null;
  /** Whether a program leads it. */
  readonly isLed: boolean;
  /** In the last minute. */
  readonly pagesPerMinute: number;
  /** At that rate; `null` where there is none. */
  readonly minutesLeft: number | null;
  /** Since it was begun. */
  readonly minutes: number;
}

export interface FleetWorkerView {
  readonly id: string;
  readonly name: string;
  readonly host: string;
  readonly pid: number;
  readonly tabs: number;
  readonly measures: string;
  /** ISO 8601. */
  readonly startedAt: string;
  /** What it holds, in words. */
  readonly doing: readonly string[];
}
