/** What the tool can ask a page for. Bundled into one script that runs in a world of its own. */
export { linksOf } from './links.js';
export { markersOf } from './markers.js';
export { placementsOf } from './placements.js';
export { scrollThrough, settleImages } from './scroll.js';
