import type { Database } from './database.js';
import { wellFormedJson } from './well-formed-json.js';

/** Something that went wrong and that somebody is to hear of, as long as it lasts. */
export interface KeptAlarm {
  readonly id: number;
  /** The same for the same trouble from one round to the next. */
  readonly key: string;
  readonly document: unknown;
  /** ISO 8601, UTC. */
  readonly begunAt: string;
  readonly overAt: string | null;
}

/** An alarm is told when it begins, and when it is over. */
export type Occasion = 'begun' | 'over';

/** What was tried to tell of an alarm by one channel. */
export interface Delivery {
  readonly attempts: number;
  readonly deliveredAt: string | null;
  readonly error: string | null;
}

/** The alarms of a watch, and who was told of them. */
export class AlarmStore {
  readonly #database: Database;

  constructor(database: Database) {
    this.#database = database;
  }

  /** Takes note of an alarm; one that is open stays as it is, with its time, and what it says now. */
  raise(key: string, document: unknown, now: string): void {
    this.#database
      .prepare(
        `INSERT INTO alarm (key, document, begun_at) VALUES (?, ?, ?)
         ON CONFLICT (key) WHERE over_at IS NULL DO UPDATE SET document = excluded.document`,
      )
      .run(key, JSON.stringify(document), now);
  }

  /** Ends the open alarms that are not among these. */
  endOthers(keys: readonly string[], now: string): void {
    const { each, text } = this.#database.dialect;
    this.#database
      .prepare(
        `UPDATE alarm SET over_at = ? WHERE over_at IS NULL
         AND key NOT IN (SELECT ${text} FROM ${each('?')})`,
      )
      .run(now, wellFormedJson(keys));
  }

  /** Those that last, the oldest first. */
  open(): KeptAlarm[] {
    return this.#read('WHERE over_at IS NULL');
  }

  /** Alarms whose beginning or end has not been told by a channel, the oldest first. */
  untold(channel: string): { readonly alarm: KeptAlarm; readonly occasion: Occasion }[] {
    const told = (occasion: Occasion) =>
      `EXISTS (SELECT 1 FROM delivery WHERE alarm_id = alarm.id AND channel = ?
        AND occasion = '${occasion}' AND delivered_at IS NOT NULL)`;
    const begun = this.#read(`WHERE over_at IS NULL AND NOT ${told('begun')}`, channel);
    // Whoever has not heard of the trouble needs not hear of its end.
    const over = this.#read(
      `WHERE over_at IS NOT NULL AND ${told('begun')} AND NOT ${told('over')}`,
      channel,
      channel,
    );
    return [
      ...over.map((alarm) => ({ alarm, occasion: 'over' as const })),
      ...begun.map((alarm) => ({ alarm, occasion: 'begun' as const })),
    ];
  }

  /** Notes an attempt to tell of an alarm. */
  noteDelivery(
    alarmId: number,
    channel: string,
    occasion: Occasion,
    { deliveredAt, error }: Omit<Delivery, 'attempts'>,
  ): void {
    this.#database.transaction(() => {
      this.#database
        .prepare(
          `INSERT INTO delivery VALUES (?, ?, ?, 1, ?, ?)
           ON CONFLICT (alarm_id, channel, occasion) DO UPDATE SET
             attempts = delivery.attempts + 1, delivered_at = excluded.delivered_at,
             error = excluded.error`,
        )
        .run(alarmId, channel, occasion, deliveredAt, error);
    });
  }

  #read(where: string, ...values: readonly string[]): KeptAlarm[] {
    const rows = this.#database
      .prepare(`SELECT * FROM alarm ${where} ORDER BY id`)
      .all(...values) as AlarmRow[];
    return rows.map(({ id, key, document, begun_at, over_at }) => ({
      ...{ id, key, begunAt: begun_at, overAt: over_at },
      document: JSON.parse(document) as unknown,
    }));
  }
}

interface AlarmRow {
  readonly id: number;
  readonly key: string;
  readonly document: string;
  readonly begun_at: string;
  readonly over_at: string | null;
}
