/** A page that grows for ever is followed this many screens down, and no further. */
const maxSteps = 40;
/** Long enough for an observer of intersections to fire and ask for its image. */
const pause = 45;

const rest = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A page on a busy machine draws late; it is not waited for longer than this. */
const longestPause = 400;

/**
 * Until what came into view was drawn, and its observers were told: they are in the frame in which the page has
 * scrolled, after its animation callbacks and before the next task.
 */
async function drawn(): Promise<void> {
  const frame = new Promise((resolve) => requestAnimationFrame(resolve)).then(() => rest(0));
  await Promise.all([rest(pause), Promise.race([frame, rest(longestPause)])]);
}

/** Scrolls to the end in steps of a screen, so that lazy images are asked for, and back to the top. */
export async function scrollThrough(): Promise<void> {
  if (document.documentElement.scrollHeight <= innerHeight) return;
  for (let step = 1; step <= maxSteps; step++) {
    const top = step * innerHeight;
    scrollTo({ top, behavior: 'instant' });
    await drawn();
    if (top >= document.documentElement.scrollHeight - innerHeight) break;
  }
  scrollTo({ top: 0, behavior: 'instant' });
  await drawn();
}

/** Waits until every image has arrived or failed, at most `limit` milliseconds. */
export async function settleImages(limit: number): Promise<boolean> {
  const end = performance.now() + limit;
  const waiting = () =>
    [...document.images].some((image) => !image.complete && image.currentSrc !== '');
  while (waiting()) {
    if (performance.now() > end) return false;
    await rest(50);
  }
  return true;
}
