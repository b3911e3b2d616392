import { readFileSync, readdirSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { BusyError } from '../core/base/errors.js';
import { makeFolder } from '../system/make-folder.js';
import { isRunning } from '../system/running.js';

/** Who is at work on something. */
interface Holder {
  readonly name: string;
  readonly pid: number;
  readonly host: string;
}

/** What the lease of a watch is called: it lasts for months, and is about surveys only while it makes one. */
export const watchLease = 'watch';

/** Whether a program that holds a lease may be changing what surveys share. */
export function isAtWorkOnSurveys({ name }: Pick<Holder, 'name'>): boolean {
  return name !== watchLease;
}

/** Work that nobody else may do until it is released. */
export interface Lease {
  release(): void;
}

/** Milliseconds between two signs of life, and how long one of another machine is believed. */
const beat = 15_000;
const believed = 60_000;

/**
 * Says which programs are at work in a workspace, with a file for each piece of work: what a killed program left behind
 * is known by its process, or by its silence, and does not count.
 */
export class Leases {
  readonly #folder: string;

  constructor(folder: string) {
    this.#folder = folder;
  }

  /**
   * Takes a piece of work.
   *
   * @param name letters, digits and hyphens; said to whoever comes too late
   * @throws BusyError when another program holds it.
   */
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
      release: () => {
        clearInterval(timer);
        rmSync(path, { force: true });
      },
    };
  }

  /** @throws BusyError when another program holds a lease that this is about. */
  refuse(isAbout: (holder: Holder) => boolean = () => true): void {
    const holder = this.#holders().find(isAbout);
    if (!holder) return;
    const place = holder.host === hostname() ? '' : ` on ${holder.host}`;
    const what = holder.name === watchLease ? 'a watch of this workspace' : holder.name;
    throw new BusyError(`another program is at work on ${what} (process ${holder.pid}${place})`, {
      hint: 'wait for its end, or stop it with Ctrl-C',
    });
  }

  #holders(): Holder[] {
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
