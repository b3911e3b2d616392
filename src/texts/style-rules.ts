import { generate, ident, walk } from 'css-tree/dist/csstree.esm';
import type { CssNode, Rule, Selector } from 'css-tree';
import type { SelectorTest, StyleRule } from '../core/survey/style-use.js';
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
  eachRule(text, false, ({ loc }) => ranges.push(loc!.start.offset, loc!.end.offset));
  return ranges;
}

/** The same rules, with what tells whether a document has elements for them. */
export function readStyleRules(text: string): StyleRule[] {
  const rules: StyleRule[] = [];
  eachRule(text, true, ({ loc, prelude }) =>
    rules.push({
      start: loc!.start.offset,
      end: loc!.end.offset,
      selectors: selectorTests(prelude),
    }),
  );
  return rules;
}

function eachRule(text: string, parseRulePrelude: boolean, tell: (rule: Rule) => void): void {
  let left = maxRules;
  const tree = parseCss(text, {
    positions: true,
    ...{ parseValue: false, parseAtrulePrelude: false, parseRulePrelude },
  });
  walk(tree, {
    enter(this: { readonly skip: symbol }, node: CssNode) {
      if (node.type === 'Atrule' && without.test(node.name)) return this.skip;
      if (node.type !== 'Rule') return undefined;
      if (node.loc && left-- > 0) tell(node);
      return this.skip;
    },
  });
}

/** `null` where the document alone does not tell what is selected. */
function selectorTests(prelude: CssNode): SelectorTest[] | null {
  if (prelude.type !== 'SelectorList') return null;
  const tests: SelectorTest[] = [];
  for (const one of prelude.children) {
    const test = one.type === 'Selector' ? selectorTest(one) : null;
    if (!test) return null;
    tests.push(test);
  }
  return tests;
}

/** Pseudo-classes that tell where an element stands in its document; all others are states, which come and go. */
const standing = new Set([
  ...['root', 'empty', 'first-child', 'last-child', 'only-child', 'first-of-type'],
  ...['last-of-type', 'only-of-type', 'nth-child', 'nth-last-child', 'nth-of-type'],
  ...['nth-last-of-type', 'is', 'where', 'not', 'has', 'lang', 'dir'],
]);
/** What is selected from somewhere else than the document. */
const elsewhere = new Set(['host', 'host-context', 'scope', 'slotted', 'part']);

/** A selector without states and pseudo-elements, which would match more often than it does. */
function selectorTest(selector: Selector): SelectorTest | null {
  const names: string[] = [];
  let text = '';
  let isBare = true;
  for (const node of selector.children) {
    if (node.type === 'Combinator') {
      text += `${isBare ? '*' : ''}${node.name}`;
      isBare = true;
      continue;
    }
    if (node.type === 'NestingSelector') return null;
    if (node.type === 'PseudoElementSelector' || node.type === 'PseudoClassSelector') {
      if (elsewhere.has(node.name.toLowerCase())) return null;
      if (node.type === 'PseudoElementSelector' || isPassing(node)) continue;
    }
    const name = nameOf(node);
    if (name !== undefined) names.push(name);
    text += generate(node);
    isBare = false;
  }
  return { text: isBare ? `${text}*` : text, names };
}

function isPassing(pseudo: CssNode): boolean {
  let isFound = false;
  walk(pseudo, (node) => {
    isFound ||=
      node.type === 'PseudoElementSelector' ||
      (node.type === 'PseudoClassSelector' && !standing.has(node.name.toLowerCase()));
  });
  return isFound;
}

/** As the probe collects names in a document: without regard to case, which matters not everywhere. */
function nameOf(node: CssNode): string | undefined {
  if (node.type === 'ClassSelector') return `.${ident.decode(node.name).toLowerCase()}`;
  if (node.type === 'IdSelector') return `#${ident.decode(node.name).toLowerCase()}`;
  if (node.type === 'TypeSelector' && /^[\w-]+$/.test(node.name)) return node.name.toLowerCase();
  return undefined;
}
