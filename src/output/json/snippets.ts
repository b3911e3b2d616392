import { snippetRules } from '../../core/refit/markup/snippet.js';
import type { ProvedSnippets } from '../../core/refit/markup/snippet.js';

/** Markup and styles to paste, as the document `zealous-lynx.snippets/1`. */
export function snippetsDocument({ snippets, withheld, proved, untried }: ProvedSnippets) {
  return {
    format: 'zealous-lynx.snippets/1',
    rules: snippetRules,
    snippets: snippets.map((one) => {
      const { after: _, orElse: __, ...snippet } = one;
      return { ...snippet, proved: proved.has(one) };
    }),
    withheld,
    untried,
  };
}
