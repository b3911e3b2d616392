import type { FleetView } from '../../output/views/fleet.js';
import { surveyLease } from '../../store/leases.js';
import type { Workspace } from '../../store/workspace.js';
import { fleetOf } from './crew.js';

/** The surveys of a workspace that are worked on, and the workers with what they hold. */
export function fleetState(workspace: Workspace): FleetView {
  const { store } = fleetOf(workspace);
  const now = Date.parse(workspace.now());
  return {
    surveys: store.unfinished().map(({ id, label, measures }) => {
      const { startedAt } = workspace.surveys.get(id);
      const { pages, failed, found, lately } = store.progress(id);
      const limit = workspace.surveys.plan(id).scope['pages'];
      const most = typeof limit === 'number' ? limit : Infinity;
      const total = Math.min(most, Math.max(found, pages));
      const minutes = Math.max(1 / 60, (now - Date.parse(startedAt)) / 60_000);
      const pagesPerMinute = Math.round((10 * lately) / Math.min(1, minutes)) / 10;
      return {
        ...{ label, startedAt, pages, failed, total, measures: measures === '' ? null : measures },
        mayGrow: pages < total && total < most,
        isLed: workspace.leases.isHeld(surveyLease(id)),
        ...{ pagesPerMinute, minutes },
        minutesLeft: pagesPerMinute > 0 ? (total - pages) / pagesPerMinute : null,
      };
    }),
    workers: store.workers(),
  };
}
