import type { SentFile } from '../../core/findings/site/site-case.js';
import type { SiteFinding } from '../../core/findings/site/index.js';
import type { PageLoad } from '../../core/rank/page-load.js';
import type { PageStory } from '../../core/rank/page-story.js';
import type { RankResult, RankRow } from '../../core/rank/rank-view.js';
import type { SparedTime } from '../../core/rank/spared-time.js';
import type { RankedImage } from '../../core/rank/ranked-image.js';
import type { RankedPicture } from '../../core/rank/ranked-picture.js';
import type { Fix } from '../../core/refit/work/fix.js';

/** What one image file is explained from. */
export interface ImageView {
  readonly image: RankedImage;
  /** What it shows, with all the files of it. */
  readonly picture: RankedPicture;
  /** Other files that the same words mean. */
  readonly others: readonly RankedImage[];
  /** What the timed pages that are sent it would be spared; `null` where none was timed. */
  readonly spared: SparedTime | null;
  readonly result: RankResult;
  readonly fix: Fix;
  /** Pixels of a file that the policy allows for each CSS pixel. */
  readonly density: number;
  /** How many placements are listed. */
  readonly top: number;
}

/** What the slot families of one slot are explained from. */
export interface FamilyView {
  /** Most waste first; at least one. */
  readonly rows: readonly RankRow[];
  readonly result: RankResult;
  /** How many images are listed. */
  readonly top: number;
}

/** What a kind of finding is explained from. */
export interface FindingView {
  readonly id: string;
  /** The images that have it, most waste first. */
  readonly images: readonly RankedImage[];
  /** The other files and pages that have it, the most costly first. */
  readonly site: readonly SiteFinding[];
  readonly result: RankResult;
  /** How many images are listed. */
  readonly top: number;
}

/** What a file that is no image is explained from. */
export interface FileView {
  readonly file: SentFile;
  readonly site: readonly SiteFinding[];
  readonly result: RankResult;
  /** How many pages are listed. */
  readonly top: number;
}

/** What one page is explained from. */
export interface PageView {
  /** What it would be spared if its images weighed what they need; `null` where it was not timed. */
  readonly spared: SparedTime | null;
  readonly story: PageStory;
  /** How it loads; `null` in surveys of older versions. */
  readonly load: PageLoad | null;
  /** The findings on what it is sent besides images, the most costly first. */
  readonly site: readonly SiteFinding[];
  readonly result: RankResult;
  /** How many images are listed. */
  readonly top: number;
}
