import type { Logger, WorkerUtils } from 'graphile-worker';
import { shownAddress } from '../../store/postgres/address.js';
import { patiently } from '../../store/postgres/patiently.js';
import type { FleetTask } from './task.js';

/** Attempts at a task whose worker fails at it: one that crashes a worker is not given to all of them. */
export const mostAttempts = 3;

/** The queue in the database of a workspace, as whoever asks for work has it. */
export class Queue {
  readonly #address: string;
  readonly #name: string;
  #utils: Promise<WorkerUtils> | undefined;
  #isClosed = false;

  /** @param name of the tasks for workers that measure alike */
  constructor(address: string, name: string) {
    this.#address = address;
    this.#name = name;
  }

  /**
   * Adds a task. Its key keeps it from being there twice.
   *
   * @throws WorkspaceError when the server stays away
   */
  async add(task: FleetTask): Promise<void> {
    // Pages first: they lead to others, and encodes can be made while servers are waited for.
    const priority = task.kind === 'visit' ? 0 : 1;
    const options = { jobKey: task.key, maxAttempts: mostAttempts, priority };
    await patiently(shownAddress(this.#address), async () => {
      const utils = await this.#opened();
      await utils.addJob(this.#name, task, options);
    });
  }

  /**
   * Keys of those tasks that somebody took at least so many milliseconds ago, by the clock of the server, and that the queue
   * has heard nothing of since.
   *
   * @throws WorkspaceError when the server stays away
   */
  async taken(keys: readonly string[], milliseconds: number): Promise<string[]> {
    return patiently(shownAddress(this.#address), async () => {
      const utils = await this.#opened();
      const { rows } = await utils.withPgClient((client) =>
        client.query<{ key: string }>(
          `SELECT key FROM graphile_worker.jobs WHERE key = ANY ($1)
             AND locked_at < clock_timestamp() - $2 * interval '1 millisecond'`,
          [keys, milliseconds],
        ),
      );
      return rows.map(({ key }) => key);
    });
  }

  async close(): Promise<void> {
    this.#isClosed = true;
    const utils = await this.#utils?.catch(() => undefined);
    this.#utils = undefined;
    await utils?.release();
  }

  #opened(): Promise<WorkerUtils> {
    if (this.#isClosed) throw new Error('the queue is closed');
    if (this.#utils) return this.#utils;
    const opening = this.#open();
    // The next attempt opens it anew.
    opening.catch(() => (this.#utils = undefined));
    return (this.#utils = opening);
  }

  async #open(): Promise<WorkerUtils> {
    const { makeWorkerUtils } = await import('graphile-worker');
    const utils = await makeWorkerUtils({
      connectionString: this.#address,
      maxPoolSize: 2,
      logger: await silent(),
    });
    try {
      await utils.migrate();
    } catch (error) {
      await utils.release();
      throw error;
    }
    return utils;
  }
}

/** The queue's own log, which is about what the program tells in its own words. */
export async function silent(): Promise<Logger> {
  const { Logger } = await import('graphile-worker');
  return new Logger(() => () => {});
}
