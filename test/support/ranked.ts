import { defaultPolicy } from '../../src/core/policy/policy.js';
import { findingCounts } from '../../src/core/rank/finding-counts.js';
import { rowsOf } from '../../src/core/rank/rank-view.js';
import type { LedgerRow, RankQuery, RankResult } from '../../src/core/rank/rank-view.js';
import { rankImages } from '../../src/core/rank/ranking.js';
import type { RankView } from '../../src/output/views/rank.js';
import { surveyOf } from './survey-facts.js';
import type { FileSketch } from './survey-facts.js';

/** A ranking of a made-up survey, as outputs are given it. */
export function rankViewOf(
  sketches: readonly FileSketch[],
  change: Partial<RankQuery> = {},
): RankView<LedgerRow> & { readonly result: RankResult } {
  const facts = surveyOf(sketches);
  const ranking = rankImages(facts, defaultPolicy);
  const result = { ...ranking, survey: facts.head, pages: facts.pages };
  const query: RankQuery = {
    ...{ by: 'family', sort: 'waste', top: 12, filter: {}, policy: defaultPolicy },
    ...change,
  };
  const found = rowsOf(result, query);
  return {
    ...{ ...found, result, by: query.by, unweighted: false, narrowed: '', imageLimit: 20 },
    found: findingCounts(found.images, facts.pictures),
  };
}
