import { snippetRules } from '../../core/refit/snippet.js';
import type { Snippet } from '../../core/refit/snippet.js';

/** Markup and styles to paste, as the document `zealous-lynx.snippets/1`. */
export function snippetsDocument(snippets: readonly Snippet[]) {
  return { format: 'zealous-lynx.snippets/1', rules: snippetRules, snippets };
}
