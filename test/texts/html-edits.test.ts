import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HtmlEdits } from '../../src/texts/html-edits.js';

const page = `<!DOCTYPE html>
<html>
  <HEAD><title>Kites &amp; tails</title></HEAD>
  <body class=wide>
    <IMG  src="kite.png"   alt='A "kite"' loading=lazy>
    <p>One<p>Two <!-- a note -->
    <img src=tail.png>
</html>`;

describe('edits of a document', () => {
  it('leave every byte that they do not touch', () => {
    const document = new HtmlEdits(page);
    const [kite, tail] = document.find('img');
    document.setAttribute(kite!, 'loading', null);
    document.setAttribute(kite!, 'alt', 'A "red" kite');
    document.setAttribute(tail!, 'width', '120');
    expect(document.toString()).toBe(
      page
        .replace(' loading=lazy', '')
        .replace(`alt='A "kite"'`, 'alt="A &quot;red&quot; kite"')
        .replace('<img src', '<img width="120" src'),
    );
    expect(document.count).toBe(3);
  });

  it('change nothing where an attribute has its value already', () => {
    const document = new HtmlEdits(page);
    document.setAttribute(document.find('img')[0]!, 'src', 'kite.png');
    expect([document.count, document.toString()]).toEqual([0, page]);
  });

  it('put text around elements, in their place and into the head', () => {
    const document = new HtmlEdits(page);
    const [kite, tail] = document.find('img');
    document.surround(kite!, '<picture>', '</picture>');
    document.replace(tail!, '');
    document.prependToHead('<style></style>');
    const text = document.toString();
    expect(text).toContain('<HEAD><style></style><title>');
    expect(text).toContain(
      `<picture><IMG  src="kite.png"   alt='A "kite"' loading=lazy></picture>`,
    );
    expect(text).not.toContain('tail.png');
  });

  it('find the head of a document that does not name it', () => {
    const document = new HtmlEdits('<!doctype html><title>t</title><p>text');
    document.prependToHead('<meta name=a>');
    expect(document.toString()).toBe('<!doctype html><meta name=a><title>t</title><p>text');
  });

  it('find nothing by what is no selector', () => {
    expect(new HtmlEdits(page).find('main >>> img')).toEqual([]);
  });

  it('are none in any text, until something is changed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(new HtmlEdits(`<p>${text}<img src=x>`).toString()).toBe(`<p>${text}<img src=x>`);
      }),
    );
  });
});
