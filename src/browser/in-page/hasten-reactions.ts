/**
 * Has the page's scripts react to the width of the window at once, which most do only when it has rested for a while: timers
 * that they set for that end without a wait, and the clock that they read then is as far on as if they had waited.
 *
 * Runs among the page's own scripts, and so must need nothing from outside itself.
 *
 * @returns tells whether such timers are still to end
 */
export function hastenReactions(): () => boolean {
  const longest = 1000;
  // What comes again and again is not hastened for ever.
  const mostInTurn = 3;
  const { Reflect: reflect } = window;
  const later = window.setTimeout.bind(window);
  const now = Date.now.bind(Date);
  const nextFrame = window.requestAnimationFrame.bind(window);
  const none = { turn: 0, ahead: 0 };
  /** The timer that has just ended: how many were hastened before it, and by how many milliseconds. */
  let ended = none;
  const due = new Set<object>();
  let isReacting = false;
  addEventListener('resize', () => {
    isReacting = true;
    // Observers are called at the end of the same frame and, of what they themselves have changed, at that of the next.
    nextFrame(() => nextFrame(() => later(() => (isReacting = false))));
  });
  const setTimeout = (handler: () => void, time = 0, ...values: unknown[]): number => {
    const delay = Number(time);
    const { turn, ahead } = ended;
    const isReaction = isReacting || window.event?.type === 'resize' || turn > 0;
    const waits = typeof handler === 'function' && delay > 0 && delay <= longest;
    if (!isReaction || !waits || turn >= mostInTurn) return later(handler, delay, ...values);
    const timer = { turn: turn + 1, ahead: ahead + delay };
    due.add(timer);
    const id = later(() => {
      ended = timer;
      try {
        reflect.apply(handler, window, values);
      } finally {
        ended = none;
      }
    });
    // Timers end in the order in which they were set; one that is cleared does not.
    later(() => due.delete(timer));
    return id;
  };
  Object.assign(window, { setTimeout });
  Date.now = () => now() + ended.ahead;
  return () => due.size > 0;
}
