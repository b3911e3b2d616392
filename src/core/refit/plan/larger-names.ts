import { hostOf, isFetched, withoutFragment } from '../../address/address.js';
import { groupBy } from '../../base/group-by.js';
import { pictureKey, unsizedAddress } from '../../address/unsized-address.js';
import type { PictureUse } from '../../survey/picture-use.js';

/** The addresses of one picture that are asked for at most. */
const most = 3;

/**
 * Where a larger file of a picture may be, by the names of its files: the name without its size, then what pages link to under
 * that name (the enlarged view behind a thumbnail), then what they name otherwise and without a size.
 *
 * @param uses the pictures that pages name without showing them there
 * @param known addresses whose files are known
 * @returns for the addresses of a file, and its width and height, addresses on the same hosts, the most promising first
 */
export function largerNames(
  uses: readonly PictureUse[],
  known: ReadonlySet<string>,
): (addresses: readonly string[], sides: readonly number[]) => string[] {
  const named = groupBy(
    uses.filter(({ url, kind }) => kind !== 'icon' && isFetched(url)),
    ({ url }) => pictureKey(url),
  );
  const isWhole = (url: string) => unsizedAddress(url) === withoutFragment(url);
  return (addresses, sides) => {
    const fetched = addresses.filter(isFetched);
    const hosts = new Set(fetched.map(hostOf));
    const kin = fetched.flatMap((address) => named.get(pictureKey(address, sides)) ?? []);
    const found = [
      ...fetched.map((address) => unsizedAddress(address, sides)),
      ...kin.filter(({ kind }) => kind === 'link').map(({ url }) => withoutFragment(url)),
      ...kin.map(({ url }) => url).filter(isWhole),
    ];
    return [...new Set(found)]
      .filter((address) => !known.has(address) && hosts.has(hostOf(address)))
      .slice(0, most);
  };
}
