import { describe, expect, it } from 'vitest';
import { ruleUse } from '../../../src/core/survey/style-use.js';
import { readStyleRules, styleRules } from '../../../src/texts/style-rules.js';

/** The selector of each rule as it is asked for; `null` where the document alone does not tell. */
const testsOf = (text: string) =>
  readStyleRules(text).map(({ selectors }) => selectors?.map((one) => one.text) ?? null);
const namesOf = (text: string) => readStyleRules(text)[0]!.selectors!.map(({ names }) => names);

describe('the rules of a style sheet', () => {
  it('are asked for without states and pseudo-elements, which come and go', () => {
    expect(
      testsOf('a:hover, .b::before > i:focus-visible, ::selection, li:first-child:after{}'),
    ).toEqual([['a', '.b>i', '*', 'li:first-child']]);
    expect(testsOf('.a:not(:hover):not(.b) + :checked{}')).toEqual([['.a:not(.b)+*']]);
  });

  it('may need more than the document, and are not asked for then', () => {
    expect(testsOf(':host(.a){} :scope > b{} c::part(d){} e{}')).toEqual([null, null, null, ['e']]);
  });

  it('name what an element must be called', () => {
    expect(namesOf(String.raw`Ul.Nav #Top a[href], .md\:wide:is(.x) {}`)).toEqual([
      ['ul', '.nav', '#top', 'a'],
      ['.md:wide'],
    ]);
  });

  it('are the same as those that are told by their places alone', () => {
    const text =
      '@media print{.a{color:red}} @keyframes k{from{top:0}} .b{& .c{top:0}} /* .d{} */ e{}';
    expect(readStyleRules(text).flatMap(({ start, end }) => [start, end])).toEqual(
      styleRules(text),
    );
    expect(testsOf(text)).toEqual([['.a'], ['.b'], ['e']]);
  });
});

describe('ruleUse', () => {
  const [there, gone, passed, anywhere, either] = readStyleRules(
    '.a .b{} .a .gone{} .a.scrolled{} :host{} .gone, i.a{}',
  );
  const seen = { now: ['.a', '.b', 'i'], before: ['.scrolled'] };
  const { used, asked } = ruleUse([there!, gone!, passed!, anywhere!, either!], seen);

  it('asks the document only where all names are there', () => {
    expect([...asked]).toEqual([
      ['.a .b', [there]],
      ['i.a', [either]],
    ]);
  });

  it('takes as used what was for elements that are called otherwise by now, and what cannot be asked for', () => {
    expect([...used]).toEqual([passed, anywhere]);
  });
});
