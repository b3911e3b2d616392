import type { PolicyRule } from '../../core/policy/allowance.js';
import type { Policy } from '../../core/policy/policy.js';
import { PossiblePictures } from '../../core/survey/pictures.js';
import type { SurveyedVisit } from '../../core/survey/survey.js';
import { noteLargest, needsOfPlacements } from '../../core/waste/placement-needs.js';
import { scaleOf } from '../../core/waste/visit-weights.js';
import type { VisitScale } from '../../core/waste/visit-weights.js';
import type { SurveyParts } from './survey-parts.js';

/** What has to be known of a whole survey before any part of it is judged. */
export interface FirstLook {
  /** The largest part of its width that any placement needs of each file, by its place. */
  readonly factors: Float64Array;
  /** Rules that hold for nothing. */
  readonly unmatchedRules: readonly PolicyRule[];
  readonly scale: VisitScale;
  /** Sets of files that may be one picture. */
  readonly possible: readonly (readonly number[])[];
}

/** Looks through a survey, one part after the other. */
export function lookThrough(parts: SurveyParts, policy: Policy): FirstLook {
  const factors = new Float64Array(parts.files.length);
  const pictures = new PossiblePictures(parts.files);
  const visits: SurveyedVisit[] = [];
  const unmatched = new Map(policy.rules.map((rule) => [rule, 0]));
  for (const part of parts) {
    const needs = needsOfPlacements(part, policy);
    noteLargest(factors, part.placements, needs);
    for (const rule of needs.unmatchedRules) unmatched.set(rule, (unmatched.get(rule) ?? 0) + 1);
    pictures.noteAddresses(part);
    for (const visit of part.visits) visits.push(visit);
  }
  // What an element offers may have been sent to a page of a later part.
  for (const part of parts) pictures.noteOffers(part);
  return {
    factors,
    unmatchedRules: policy.rules.filter((rule) => unmatched.get(rule) === parts.count),
    scale: scaleOf(visits, parts.pages, parts.head.views),
    possible: pictures.sets(),
  };
}
