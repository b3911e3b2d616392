import type { Database } from './database.js';
import { NotFoundError } from '../core/base/errors.js';
import type { SurveyHead } from '../core/survey/survey.js';

/** @throws NotFoundError when a survey was thinned out to its figures. */
export function refuseThinned(database: Database, { id, label }: SurveyHead): void {
  const row = database.prepare('SELECT thinned_at FROM survey WHERE id = ?').get(id) as
    { thinned_at: string | null } | undefined;
  if (!row?.thinned_at) return;
  throw new NotFoundError(
    `${label} was thinned out to its figures on ${row.thinned_at.slice(0, 10)}`,
    { hint: 'zealous-lynx history shows them; name a survey that is whole with --survey' },
  );
}
