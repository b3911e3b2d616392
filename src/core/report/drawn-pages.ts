/**
 * The pages whose plans a report has: those that waste the most, and behind them those without a row, which show no image.
 *
 * @param wasteful addresses of pages, the most waste first
 * @param pages the addresses of all pages
 * @param most how many are drawn
 */
export function drawnPages(
  wasteful: readonly string[],
  pages: readonly string[],
  most: number,
): Set<string> {
  return new Set([...new Set([...wasteful, ...pages])].slice(0, most));
}
