import { WorkspaceError } from '../../core/base/errors.js';
import type { Failure } from './messages.js';

/** What is wrong, and what to do about it, by the code of the server (SQLSTATE) or of the system. */
const byCode: Readonly<Record<string, readonly [words: string, hint: string]>> = {
  ECONNREFUSED: ['nobody answers there', 'start the server, or check host and port'],
  ENOTFOUND: ['there is no such host', 'check the name of the host'],
  EAI_AGAIN: ['the name of the host cannot be looked up', 'check the name, and the network'],
  ETIMEDOUT: ['nobody answers there in time', 'check host, port and firewall'],
  EHOSTUNREACH: ['no way leads to the host', 'check the network'],
  ENETUNREACH: ['no way leads to the host', 'check the network'],
  '28P01': ['the password is wrong', 'put the right one into PGPASSWORD or ~/.pgpass'],
  '28000': [
    'the server lets nobody in that way',
    'check the user, TLS (?sslmode=require) and pg_hba.conf',
  ],
  '3D000': ['there is no such database', 'make it with createdb, or check its name'],
  '42501': [
    'the role lacks a right',
    'docs/fleet.md lists what it needs: GRANT them, or let the owner of the tables run this once',
  ],
  '53100': [
    'the disk of the server is full',
    'make room there and run it again: what is done is kept',
  ],
  '53300': ['the server has no connection left', 'raise max_connections, or stop other programs'],
  '25006': ['the server only reads', 'name the primary server, not a copy of it'],
};

const lost = [
  'the connection was lost, and the server did not come back in a minute',
  'check the server and the network, and run it again: what is done is kept',
] as const;

/** A failure as an error of the program, with a line that says what to do. */
export function errorOf({ message, code, isLost }: Failure, shown: string): WorkspaceError {
  const [words, hint] = byCode[code] ?? (isLost ? lost : []);
  return new WorkspaceError(
    `${shown}: ${words === undefined ? message : `${words} (${message})`}`,
    {
      ...(hint === undefined ? {} : { hint }),
    },
  );
}
