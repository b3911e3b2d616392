import { hostname } from 'node:os';
import { BusyError } from '../core/base/errors.js';

/** Who is at work on something. */
export interface Holder {
  readonly name: string;
  readonly pid: number;
  readonly host: string;
}

/** What the lease of a watch is called: it lasts for months, and is about surveys only while it makes one. */
export const watchLease = 'watch';

/** What the lease of a survey is called. */
export function surveyLease(id: number): string {
  return `survey-${id}`;
}

/** Whether a program that holds a lease may be changing what surveys share. */
export function isAtWorkOnSurveys({ name }: Pick<Holder, 'name'>): boolean {
  return name !== watchLease;
}

/** Work that nobody else may do until it is released. */
export interface Lease {
  /**
   * Makes sure that it is still this program's: one that gave no sign of life for a minute may have lost it. As a part of a
   * transaction in the database that has the lease, it stays so until the transaction ends.
   *
   * @throws BusyError when another program has taken it over.
   */
  confirm(): void;
  release(): void;
}

/** The error of a program whose lease is another's by now. */
export function takenOver(name: string): BusyError {
  return new BusyError(
    `another program went on with ${name}, since this one was not heard of for a minute`,
    { hint: 'leave it to that one: nothing is lost' },
  );
}

/** Milliseconds between two signs of life, and how long one of another machine is believed. */
export const beat = 15_000;
export const believed = 60_000;

/** Says which programs are at work in a workspace. What a killed program left behind does not count. */
export abstract class Leases {
  /**
   * Takes a piece of work.
   *
   * @param name letters, digits and hyphens; said to whoever comes too late
   * @throws BusyError when another program holds it.
   */
  abstract take(name: string): Lease;

  /** Who is at work, and alive. */
  protected abstract holders(): readonly Holder[];

  /** Whether another program holds a piece of work. */
  isHeld(name: string): boolean {
    return this.holders().some((holder) => holder.name === name);
  }

  /** @throws BusyError when another program holds a lease that this is about. */
  refuse(isAbout: (holder: Holder) => boolean = () => true): void {
    const holder = this.holders().find(isAbout);
    if (!holder) return;
    const place = holder.host === hostname() ? '' : ` on ${holder.host}`;
    const what = holder.name === watchLease ? 'a watch of this workspace' : holder.name;
    throw new BusyError(`another program is at work on ${what} (process ${holder.pid}${place})`, {
      hint: 'wait for its end, or stop it with Ctrl-C',
    });
  }
}
