import { connect } from 'node:net';
import type { LookupFunction, Socket } from 'node:net';
import type { Place } from './host-map.js';

/** Connects to a place: to its known addresses only, where it has them. */
export function connectTo({ host, port, addresses }: Place): Socket {
  return connect({ host, port, ...(addresses && { lookup: lookupAmong(addresses) }) });
}

/** Answers with addresses that were looked up before. */
export function lookupAmong(addresses: NonNullable<Place['addresses']>): LookupFunction {
  return (_name, { all, family }, done) => {
    if (all) return done(null, [...addresses]);
    const one = addresses.find((found) => !family || found.family === family) ?? addresses[0]!;
    done(null, one.address, one.family);
  };
}
