/** Numbers in words are those of the terminal. */
export { count, formatBytes, formatShare, formatTime } from '../../src/output/words/units.js';
export { causeTitles } from '../../src/output/words/causes.js';
export { markerSigns } from '../../src/output/words/marker-signs.js';
export { phaseColours, markerLines, typeLetters } from '../../src/output/words/request.js';
export { markerTitles } from '../../src/core/load/markers.js';
export { phaseNames, requestTypes } from '../../src/core/load/request.js';
