import { SettingError } from '../../core/base/errors.js';

/** Whether the place of a workspace is a database on a server, and no folder. */
export function isServerAddress(place: string): boolean {
  return /^postgres(?:ql)?:/i.test(place);
}

/** The parameter of an address that names a folder for bodies, which all machines see under one path. */
const bodiesParameter = 'bodies';

/** The address of the database itself, and the folder that is shared for bodies, if there is one. */
export function splitAddress(place: string): { address: string; bodiesFolder: string | null } {
  shownAddress(place);
  const url = new URL(place);
  const bodiesFolder = url.searchParams.get(bodiesParameter);
  url.searchParams.delete(bodiesParameter);
  return { address: url.href, bodiesFolder };
}

/**
 * The address of a workspace as it may be shown: without password.
 *
 * @throws SettingError where it is no address.
 */
export function shownAddress(place: string): string {
  if (!URL.canParse(place))
    throw new SettingError(`${place.replace(/\/\/[^@]*@/, '//')} is no address of a database`, {
      hint: 'write postgres://user@host:5432/database; the password may stand in PGPASSWORD or ~/.pgpass',
    });
  const { protocol, username, host, pathname } = new URL(place);
  return `${protocol}//${username && `${username}@`}${host}${pathname}`;
}
