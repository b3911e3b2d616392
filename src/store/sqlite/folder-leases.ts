import { readFileSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { makeFolder } from '../../system/make-folder.js';
import { isRunning } from '../../system/running.js';
import { Leases, beat, believed, takenOver } from '../leases.js';
import type { Holder, Lease } from '../leases.js';

/** A file for each piece of work: what a killed program left behind is known by its process, or by its silence. */
export class FolderLeases extends Leases {
  readonly #folder: string;

  constructor(folder: string) {
    super();
    this.#folder = folder;
  }

  take(name: string): Lease {
    makeFolder(this.#folder);
    const path = this.#path(name);
    const holder: Holder = { name, pid: process.pid, host: hostname() };
    for (;;)
      try {
        writeFileSync(path, JSON.stringify(holder), { flag: 'wx' });
        break;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
        this.refuse((other) => other.name === name);
        rmSync(path, { force: true });
      }
    const timer = setInterval(() => {
      const now = new Date();
      try {
        utimesSync(path, now, now);
      } catch {
        // Somebody has taken the folder away: the work itself will say so.
      }
    }, beat);
    timer.unref();
    return {
      confirm: () => {
        const other = this.holders().find((one) => one.name === name);
        if (other && (other.pid !== holder.pid || other.host !== holder.host))
          throw takenOver(name);
      },
      release: () => {
        clearInterval(timer);
        rmSync(path, { force: true });
      },
    };
  }

  protected holders(): Holder[] {
    let names: string[];
    try {
      names = readdirSync(this.#folder);
    } catch {
      return [];
    }
    return names.flatMap((name) => {
      const path = join(this.#folder, name);
      try {
        const { mtimeMs } = statSync(path);
        const holder = JSON.parse(readFileSync(path, 'utf8')) as Holder;
        const isHere = holder.host === hostname();
        const isAlive = isHere ? isRunning(holder.pid) : Date.now() - mtimeMs < believed;
        return isAlive ? [holder] : [];
      } catch {
        // It has just gone, or a killed program left half of it.
        return [];
      }
    });
  }

  #path(name: string): string {
    return join(this.#folder, `${name}.json`);
  }
}
