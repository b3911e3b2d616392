/**
 * Has the page's scripts answer to the width of the window at once, which most do only when it has rested for a while: timers
 * that they set in answer to it end without a wait, and the clock that they read then is as far on as if they had waited.
 *
 * Runs among the page's own scripts, and so must need nothing from outside itself.
 *
 * @returns tells whether timers are due that had to be left as they are: scripts that have kept the function of the clock go on
 *   to wait for what is left of their time
 */
export function hastenAnswers(): () => boolean {
  const longest = 1000;
  const mostInTurn = 3;
  /** Milliseconds until one that is set anew ends: enough to see that it waits for what is left. */
  const step = 5;
  const { Reflect: reflect } = window;
  const later = window.setTimeout.bind(window);
  const now = Date.now.bind(Date);
  const nextFrame = window.requestAnimationFrame.bind(window);
  let isAnswering = false;
  /** The timer that has just ended: how many were hastened before it, by how much, and how long the first was to wait. */
  let ended = { turn: 0, ahead: 0, first: Infinity };
  const none = ended;
  /** When the last of those that were left ends, in milliseconds of the clock. */
  let due = 0;
  addEventListener('resize', () => {
    isAnswering = true;
    // Observers are called at the end of the same frame and, of what they themselves have changed, at that of the next.
    nextFrame(() => nextFrame(() => later(() => (isAnswering = false))));
  });
  const call = (handler: () => void, values: unknown[]) =>
    void reflect.apply(handler, window, values);
  const setTimeout = (handler: () => void, time = 0, ...values: unknown[]): number => {
    const delay = Number(time);
    const isAnswer = isAnswering || window.event?.type === 'resize' || ended.turn > 0;
    const waits = typeof handler === 'function' && delay > 0 && delay <= longest;
    if (!isAnswer || !waits) return later(handler, delay, ...values);
    const { turn, ahead, first } = ended;
    if (turn < mostInTurn)
      return later(
        () => {
          ended = { turn: turn + 1, ahead: ahead + delay, first: turn === 0 ? delay : first };
          try {
            call(handler, values);
          } finally {
            ended = none;
          }
        },
        turn === 0 ? 0 : step,
      );
    // What comes again and again after the same time is no answer.
    if (delay < first) due = Math.max(due, now() + delay);
    return later(handler, delay, ...values);
  };
  Object.assign(window, { setTimeout });
  Date.now = () => now() + ended.ahead;
  // A timer ends a little late.
  return () => now() < due + 30;
}
