import type { RoundView } from '../views/round.js';
import { plainText } from '../words/plain-text.js';
import { roundLine } from '../words/round.js';
import { paletteFor } from './style.js';
import type { Screen } from './style.js';

/** A round: its line, and what is wrong. */
export function drawRound(view: RoundView, screen: Screen): string {
  const { red } = paletteFor(screen);
  return [
    roundLine(view),
    ...view.troubles.map(({ title }) => `  ${red('✗')} ${plainText(title)}`),
  ].join('\n');
}
