/** Whether no script may run in the document: then no timer and no observer calls back, and nothing can be waited for. */
let isStill = false;

/** Has nothing wait from now on. */
export function standStill(): void {
  isStill = true;
}

export function canWait(): boolean {
  return !isStill;
}

/** Waits, if that is possible in this document. */
export function rest(milliseconds: number): Promise<unknown> {
  return isStill ? Promise.resolve() : new Promise((resolve) => setTimeout(resolve, milliseconds));
}
