import { describe, expect, it } from 'vitest';
import type { Snippet } from '../../../../src/core/refit/markup/snippet.js';
import { snippetTemplates } from '../../../../src/core/refit/markup/snippet-template.js';
import type { Attributes } from '../../../../src/core/slots/element-markup.js';

function snippetOf(name: string, more: Attributes = [], change: Partial<Snippet> = {}): Snippet {
  return {
    ...{ url: `http://a.test/img/${name}.jpg`, places: [], where: 'cards', slot: 'li > img' },
    ...{ language: 'html', replaces: 'element', text: '', before: '', orElse: null, changes: [] },
    after: {
      attributes: [['class', 'card'], ['src', `/img/${name}-400.jpg`], ...more],
      picture: null,
    },
    ...change,
  };
}

describe('the template of a slot family', () => {
  it('names the files by a placeholder, and keeps what all have in common', () => {
    const [template, ...others] = snippetTemplates([snippetOf('kite'), snippetOf('gull')]);
    expect(others).toEqual([]);
    expect(template!.text).toBe('<img class="card" src="{file}-400.jpg">');
    expect(template!.placeholders).toEqual(['file']);
  });

  it('marks what differs from image to image', () => {
    const alt = (text: string): Attributes => [['alt', text]];
    const [template] = snippetTemplates([
      snippetOf('kite', alt('A kite')),
      snippetOf('gull', alt('A gull')),
    ]);
    expect(template!.text).toBe('<img class="card" src="{file}-400.jpg" alt="{alt}">');
    expect(template!.placeholders).toEqual(['alt', 'file']);
  });

  it('is another one for other slots, other attributes and other sizes', () => {
    const sizes = (text: string): Attributes => [['sizes', text]];
    const all = [
      snippetOf('a'),
      snippetOf('b', [], { slot: 'main > img' }),
      snippetOf('c', sizes('100px')),
      snippetOf('d', sizes('200px')),
    ];
    expect(snippetTemplates(all).map(({ snippets }) => snippets.length)).toEqual([1, 1, 1, 1]);
  });

  it('is the element itself where there is one', () => {
    expect(snippetTemplates([snippetOf('kite')])[0]!.text).toBe(
      '<img class="card" src="/img/kite-400.jpg">',
    );
  });
});
