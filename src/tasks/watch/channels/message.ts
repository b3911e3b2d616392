import type { KeptAlarm, Occasion } from '../../../store/alarms.js';
import type { Trouble } from '../trouble.js';

/** What a channel is given to tell. */
export interface AlarmMessage {
  readonly hosts: readonly string[];
  readonly occasion: Occasion;
  readonly alarm: KeptAlarm & { readonly document: Trouble };
}

/** A message as the document `zealous-lynx.alarm/1`. */
export function messageDocument({ hosts, occasion, alarm }: AlarmMessage) {
  const { key: _, ...trouble } = alarm.document;
  return {
    format: 'zealous-lynx.alarm/1',
    ...{ hosts, occasion, id: alarm.id, begunAt: alarm.begunAt, overAt: alarm.overAt },
    ...trouble,
  };
}

/** A message in a line. */
export function messageTitle({ hosts, occasion, alarm }: AlarmMessage): string {
  return `${hosts.join(', ')}: ${occasion === 'over' ? 'over: ' : ''}${alarm.document.title}`;
}

/** A message as the text of a mail. */
export function messageText(message: AlarmMessage): string {
  const { occasion, alarm } = message;
  const time = (at: string) => `${at.slice(0, 16).replace('T', ' ')} UTC`;
  return [
    messageTitle(message),
    '',
    ...alarm.document.details,
    '',
    `Seen first on ${time(alarm.begunAt)}.`,
    ...(occasion === 'over' && alarm.overAt ? [`Over since ${time(alarm.overAt)}.`] : []),
  ].join('\n');
}

/** Milliseconds that a channel may take to tell of one alarm. */
export const patience = 10_000;
