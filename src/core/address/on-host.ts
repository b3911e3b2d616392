/**
 * Whether a host is one that a person named, or below it.
 *
 * @param host with its port, where it has one
 * @param wanted a name, `*.` before it or not; with a port, it stands for that port alone
 */
export function isOnHost(host: string, wanted: string): boolean {
  const bare = host.replace(/:\d+$/, '');
  const named = wanted.replace(/^\*\./, '').toLowerCase();
  return [host, bare].some((name) => name === named || name.endsWith(`.${named}`));
}
