/** What is told of a report that was written. */
export interface WrittenReport {
  readonly file: string;
  readonly bytes: number;
  readonly survey: string;
  /** Whether the survey was interrupted. */
  readonly isUnfinished: boolean;
  readonly pages: number;
  readonly images: number;
  /** Images that are not listed, and pages that are not drawn, because others waste more. */
  readonly imagesLeftOut: number;
  readonly plansLeftOut: number;
  /** Images without a thumbnail, though pictures were asked for. */
  readonly withoutPicture: number;
  /** The address of the first of them; `null` where there is none, or hosts are left out. */
  readonly firstWithoutPicture: string | null;
  readonly sessions: number;
  readonly comparisons: number;
  readonly trials: number;
  readonly workItems: number;
}
