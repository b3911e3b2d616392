import { sumOf } from '../../core/waste/portion.js';
import type { CompareSurveysView } from '../views/compare-surveys.js';
import { csvOf } from './csv.js';

/** Every image and page of two surveys as CSV, a line each; sizes in bytes, those of a visit on average. */
export function compareSurveysCsv({ compared: { comparison } }: CompareSurveysView): string {
  const none = sumOf([]);
  const rows = (what: 'image' | 'page') =>
    (what === 'image' ? comparison.images : comparison.pages).map(
      ({ before, after, by, bytes, perVisit }) => ({
        what,
        before: before?.url ?? null,
        after: after?.url ?? null,
        matchedBy: by,
        bytesBefore: before?.bytes ?? null,
        bytesAfter: after?.bytes ?? null,
        bytesChange: bytes,
        wasteBefore: Math.round((before?.perVisit ?? none).wasteBytes),
        wasteAfter: Math.round((after?.perVisit ?? none).wasteBytes),
        changePerVisit: Math.round(perVisit),
      }),
    );
  return csvOf([...rows('image'), ...rows('page')]);
}
