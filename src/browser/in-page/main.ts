/** The functions that the tool calls inside a page, bundled into one script that runs in an isolated world. */
export { breakpointsOf } from './breakpoints.js';
export { documentFacts, hasDocument } from './document-facts.js';
export { holdsImagesBack, lazyAddresses } from './held-images.js';
export { loadFacts } from './load-facts.js';
export { largestContent } from './largest-content.js';
export { markersOf } from './markers.js';
export { layoutsKnownBefore, placementsOf, slotWidths, slotWidthsOnceDrawn } from './placements.js';
export { selectorOf } from './selector.js';
export {
  adoptRules,
  forgetRestless,
  rememberLayout,
  revertMarkup,
  tryMarkup,
  untilThere,
} from './try-markup.js';
export { matchedSelectors, namesSeen } from './rule-use.js';
export { styleUse } from './sheets.js';
export { listenForWidth, unheardSlotWidths } from './unheard.js';
export { asksForPassword } from './login.js';
export { standStill } from './waiting.js';
export { decodeImages, hurryImages, scrollThrough, settleImages } from './scroll.js';
