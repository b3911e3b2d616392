import { forcedLayout } from './forced-layout.js';
import { largeDom } from './large-dom.js';
import { layoutShift } from './layout-shift.js';
import { slowScript } from './slow-script.js';

/** Findings on what keeps the browser busy, and what moves. */
export const threadFindings = [slowScript, forcedLayout, layoutShift, largeDom] as const;
