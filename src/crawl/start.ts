import { statSync } from 'node:fs';
import { dirname } from 'node:path';
import { pageAddress } from '../core/address/address.js';
import { NotFoundError, UsageError } from '../core/base/errors.js';

/** Where a survey or a session begins. */
export type Start =
  | { readonly kind: 'address'; readonly url: string }
  | { readonly kind: 'folder'; readonly path: string };

/**
 * What a person meant by a start: an http(s) address, a host name without a scheme, or a folder.
 *
 * @throws UsageError when it is neither, or a file; NotFoundError when it looks like a folder and is not there.
 */
export function parseStart(text: string): Start {
  if (/^https?:\/\//i.test(text)) {
    const url = pageAddress(text);
    if (url) return { kind: 'address', url };
    throw new UsageError(`${text} is not an address`, {
      hint: 'give one like http://brindlebay.test/',
    });
  }
  if (isFolder(text)) return { kind: 'folder', path: text };
  const host =
    /^[\w-]+(?:\.[\w-]+)+(?::\d+)?(?:\/.*)?$/.test(text) && pageAddress(`https://${text}`);
  if (isFile(text))
    throw new UsageError(`${text} is a file, and a site is a folder`, {
      hint: `give its folder, ${dirname(text)}: it is served from there`,
    });
  if (/^[./~]|[\\/]$/.test(text) || !host)
    throw new NotFoundError(`there is no folder ${text}`, {
      hint: 'give the folder of a static site, or an address that begins with http:// or https://',
    });
  return { kind: 'address', url: host };
}

function isFile(path: string): boolean {
  return statSync(path, { throwIfNoEntry: false })?.isFile() ?? false;
}

function isFolder(path: string): boolean {
  return statSync(path, { throwIfNoEntry: false })?.isDirectory() ?? false;
}
