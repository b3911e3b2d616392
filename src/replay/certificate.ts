import { createHash, createPublicKey } from 'node:crypto';

/** A key and a certificate that are made for one replay and kept nowhere. */
export interface ThrowAwayCertificate {
  /** PEM. */
  readonly key: string;
  /** PEM. */
  readonly cert: string;
  /** SHA-256 of the public key (SubjectPublicKeyInfo, RFC 5280, section 4.1.2.7), in base64: what the browser is told to trust. */
  readonly keyHash: string;
}

const day = 24 * 3_600_000;

/** Makes a certificate that only a browser trusts that is given the hash of its key. */
export async function throwAwayCertificate(): Promise<ThrowAwayCertificate> {
  const { generate } = await import('selfsigned');
  const made = await generate([{ name: 'commonName', value: 'replay.invalid' }], {
    ...{ keyType: 'ec', curve: 'P-256', algorithm: 'sha256' },
    notBeforeDate: new Date(Date.now() - day),
    notAfterDate: new Date(Date.now() + day),
  });
  const key = createPublicKey(made.cert).export({ type: 'spki', format: 'der' });
  return {
    key: made.private,
    cert: made.cert,
    keyHash: createHash('sha256').update(key).digest('base64'),
  };
}
