import { walk } from 'css-tree/dist/csstree.esm';
import type { CssNode } from 'css-tree';
import { parseCss } from './parse-css.js';

/** The most rules of a style sheet that are told. */
const maxRules = 20_000;
/** At-rules that hold no rules with selectors, whatever stands in them. */
const without =
  /^(?:-\w+-)?(?:keyframes|font-face|page|property|counter-style|font-feature-values)$/i;

/**
 * The rules of a style sheet that have a selector: start and end of each in UTF-16 units, in rising order. Rules within
 * rules belong to the one around them. What cannot be read is left out, as browsers do (CSS Syntax 3, section 9).
 */
export function styleRules(text: string): number[] {
  const ranges: number[] = [];
  const tree = parseCss(text, {
    positions: true,
    ...{ parseValue: false, parseAtrulePrelude: false, parseRulePrelude: false },
  });
  walk(tree, {
    enter(this: { readonly skip: symbol }, node: CssNode) {
      if (node.type === 'Atrule' && without.test(node.name)) return this.skip;
      if (node.type !== 'Rule') return undefined;
      if (node.loc && ranges.length < 2 * maxRules)
        ranges.push(node.loc.start.offset, node.loc.end.offset);
      return this.skip;
    },
  });
  return ranges;
}
