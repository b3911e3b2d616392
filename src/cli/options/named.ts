import { SettingError } from '../../core/base/errors.js';
import { describeNetwork } from '../../core/visitors/network.js';
import type { Network } from '../../core/visitors/network.js';
import type { View } from '../../core/visitors/view.js';

/** @throws SettingError when there is no network of this name. */
export function namedNetwork(name: string, networks: readonly Network[]): Network {
  return byName('--network', name, networks, describeNetwork);
}

/**
 * A view by its name; the first where none is given.
 *
 * @throws SettingError when there is none of this name.
 */
export function namedView(name: string | undefined, views: readonly View[]): View {
  return byName('--view', name ?? views[0]!.name, views, (view) => view.name);
}

function byName<Item extends { readonly name: string }>(
  option: string,
  name: string,
  items: readonly Item[],
  describe: (item: Item) => string,
): Item {
  const found = items.find((item) => item.name === name);
  if (found) return found;
  throw new SettingError(
    `${option}: expected one of ${items.map(describe).join(', ')}, found ${JSON.stringify(name)}`,
  );
}
