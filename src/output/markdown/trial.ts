import type { TrialView } from '../views/trial.js';
import { fixRow, verdictSentences } from '../words/trial.js';
import { compareMarkdown } from './compare.js';
import { escaped } from './markdown.js';

/** Trials as Markdown, to be pasted into a ticket: what the fixes bring, what they are, and the numbers. */
export function trialMarkdown(view: TrialView): string {
  return view.pages
    .map((page) =>
      [
        ...verdictSentences(page.comparison).map(escaped),
        '',
        '| fix | what it does | changed | largest paint | load | bytes |',
        '| --- | --- | ---: | ---: | ---: | ---: |',
        ...page.fixes.map((fix) => {
          const { name, title, changed, largest, load, bytes } = fixRow(fix);
          return `| ${[name, title, changed, largest, load, bytes].map(escaped).join(' | ')} |`;
        }),
        '',
        compareMarkdown({ ...view, pages: [page] }),
      ].join('\n'),
    )
    .join('\n\n');
}
