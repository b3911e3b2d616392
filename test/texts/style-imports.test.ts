import { describe, expect, it } from 'vitest';
import { rebased, styleImports } from '../../src/texts/style-imports.js';

describe('imports of a style sheet', () => {
  it('are those ahead of all rules, in any form that names an address', () => {
    const text = `@charset "utf-8";
/* kites */ @import "a.css"; @import url(b.css) screen and (min-width: 600px);
p { color: red }
@import "late.css";`;
    const found = styleImports(text);
    expect(found.map(({ url, media }) => [url, media])).toEqual([
      ['a.css', ''],
      ['b.css', 'screen and (min-width:600px)'],
    ]);
    expect(text.slice(found[0]!.from, found[0]!.to)).toBe('@import "a.css";');
  });

  it('end where one cannot be put in place', () => {
    expect(styleImports('@import "a.css" layer(base); @import "b.css";')).toEqual([]);
  });

  it('bring addresses that mean the same elsewhere', () => {
    expect(
      rebased(
        'a{background:url(../img/kite.png)}b{background:url("data:image/gif;base64,AA")}',
        'http://bay.test/css/parts/a.css',
      ),
    ).toBe(
      'a{background:url("http://bay.test/css/img/kite.png")}b{background:url("data:image/gif;base64,AA")}',
    );
  });
});
