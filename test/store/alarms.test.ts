import { describe, expect, it } from 'vitest';
import { Workspace } from '../../src/store/workspace.js';
import { freshPlace } from '../support/place.js';

const now = '2026-11-27T12:00:00.000Z';
const later = '2026-11-27T18:00:00.000Z';

describe('alarms', () => {
  it('begin once, keep their time, and are over once', () => {
    const workspace = Workspace.open(freshPlace());
    const { alarms } = workspace;
    alarms.raise('heavy', { title: 'first' }, now);
    alarms.raise('heavy', { title: 'second' }, later);
    expect(alarms.open()).toMatchObject([
      { key: 'heavy', begunAt: now, document: { title: 'second' } },
    ]);
    alarms.endOthers(['heavy'], later);
    expect(alarms.open()).toHaveLength(1);
    alarms.endOthers([], later);
    expect(alarms.open()).toEqual([]);
    alarms.raise('heavy', { title: 'third' }, later);
    expect(alarms.open()).toMatchObject([{ begunAt: later }]);
    workspace.close();
  });

  it('are told to each channel once, and their end to those that heard of the beginning', () => {
    const workspace = Workspace.open(freshPlace());
    const { alarms } = workspace;
    const untold = (channel: string) => alarms.untold(channel).map(({ occasion }) => occasion);
    alarms.raise('heavy', {}, now);
    const [{ id } = { id: 0 }] = alarms.open();
    expect([untold('chat'), untold('mail')]).toEqual([['begun'], ['begun']]);
    alarms.noteDelivery(id, 'chat', 'begun', { deliveredAt: null, error: 'no answer' });
    expect(untold('chat')).toEqual(['begun']);
    alarms.noteDelivery(id, 'chat', 'begun', { deliveredAt: now, error: null });
    expect([untold('chat'), untold('mail')]).toEqual([[], ['begun']]);
    alarms.endOthers([], later);
    expect([untold('chat'), untold('mail')]).toEqual([['over'], []]);
    alarms.noteDelivery(id, 'chat', 'over', { deliveredAt: later, error: null });
    expect(untold('chat')).toEqual([]);
    workspace.close();
  });
});
