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

/** The longest wait for a page to draw, on a busy machine. */
const longestWait = 400;

/**
 * Waits until what has changed of the window, or come into view, was drawn, and the page's listeners and observers were called:
 * that happens in the next frame, before and after its animation callbacks and before the next task.
 */
export function drawn(longest = longestWait): Promise<unknown> {
  if (!canWait()) return rest(0);
  const frame = new Promise((resolve) => requestAnimationFrame(resolve)).then(() => rest(0));
  return Promise.race([frame, rest(longest)]);
}
