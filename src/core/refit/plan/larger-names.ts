import { hostOf, isFetched, withoutFragment } from '../../address/address.js';
import { pictureKey, unsizedAddress } from '../../address/unsized-address.js';
import type { PictureUse } from '../../survey/picture-use.js';

/** The addresses of one picture that are asked for at most. */
const most = 3;

/**
 * Where a larger file of a picture may be, by the names of its files: what pages link to under the same name but for a size
 * (the enlarged view behind a thumbnail), then the name without its size.
 *
 * @param uses the pictures that pages name without showing them there
 * @returns for the addresses of a file, and its width and height, addresses on the same hosts, the most promising first
 */
export function largerNames(
  uses: readonly PictureUse[],
): (addresses: readonly string[], sides: readonly number[]) => string[] {
  const named = new Map<string, string[]>();
  for (const { url, kind } of uses) {
    if (kind === 'icon' || !isFetched(url)) continue;
    const key = pictureKey(url);
    named.set(key, [...(named.get(key) ?? []), withoutFragment(url)]);
  }
  return (addresses, sides) => {
    const own = new Set(addresses);
    const hosts = new Set(addresses.filter(isFetched).map(hostOf));
    const found = addresses
      .filter(isFetched)
      .flatMap((address) => [
        ...(named.get(pictureKey(address, sides)) ?? []),
        unsizedAddress(address, sides),
      ]);
    return [...new Set(found)]
      .filter((address) => !own.has(address) && hosts.has(hostOf(address)))
      .slice(0, most);
  };
}
