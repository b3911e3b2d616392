import { withoutSecrets } from '../core/address/secrets.js';
import type { OutputStream } from './streams.js';

/** A stream into which no address tells a secret, whoever writes to it. */
export function maskedStream(stream: OutputStream): OutputStream {
  const write = (chunk: string | Uint8Array, ...rest: []) =>
    stream.write(withoutSecrets(typeof chunk === 'string' ? chunk : textOf(chunk)), ...rest);
  return new Proxy(stream, {
    get: (target, name) => {
      if (name === 'write') return write;
      const value = Reflect.get(target, name) as unknown;
      return typeof value === 'function' ? (value.bind(target) as unknown) : value;
    },
  });
}

function textOf(bytes: Uint8Array): string {
  return Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('utf8');
}
