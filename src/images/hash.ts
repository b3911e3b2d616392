import { createHash } from 'node:crypto';

/** The content hash of a body: SHA-256, 64 hexadecimal digits. */
export function contentHashOf(body: Uint8Array): string {
  return createHash('sha256').update(body).digest('hex');
}
