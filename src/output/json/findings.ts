import type { Finding } from '../../core/findings/finding.js';
import { findingWords } from '../words/findings.js';

/** Findings as every document has them: the kind, the words and the evidence. */
export function findingDocuments<Found extends Finding>(findings: readonly Found[]) {
  return findings.map(({ id, data, ...rest }) => {
    return { id, message: findingWords({ id, data }), ...rest, data };
  });
}
