import { messageOf } from '../core/base/errors.js';

/** Codes of the runtime, of the system and of TLS, in words. */
const byCode: Readonly<Record<string, string>> = {
  ECONNREFUSED: 'connection refused',
  ECONNRESET: 'the server closed the connection',
  EPIPE: 'the server closed the connection',
  ECONNABORTED: 'the server closed the connection',
  ENOTFOUND: 'no such host',
  EAI_AGAIN: 'the name service does not respond',
  EHOSTUNREACH: 'the host cannot be reached',
  ENETUNREACH: 'the network cannot be reached',
  ETIMEDOUT: 'no response',
  EPROTO: 'the server does not speak TLS as it should',
  ERR_TLS_CERT_ALTNAME_INVALID: 'its certificate is for another host',
};

/** Why a file could not be fetched, in words that need no knowledge of the runtime. */
export function fetchWords(error: unknown, timeout: number): string {
  if (!(error instanceof Error)) return messageOf(error);
  if (error.name === 'TimeoutError' || error.name === 'AbortError')
    return `no response in ${timeout / 1000} s`;
  const { code = '' } = error as NodeJS.ErrnoException;
  if (code.startsWith('HPE_')) return 'the response is not HTTP';
  if (/CERT|SELF_SIGNED|VERIFY/.test(code)) return `its certificate does not verify (${code})`;
  // Several addresses of one host were tried.
  const [first] = error instanceof AggregateError ? (error.errors as unknown[]) : [];
  if (first !== undefined) return fetchWords(first, timeout);
  return byCode[code] ?? messageOf(error);
}
