import type { Failure } from './messages.js';

/** Codes of what may pass: there is nobody yet, or nobody any more; a server that starts, stops, or has no room. */
const passing =
  /^(?:ECONNREFUSED|ECONNRESET|EPIPE|ETIMEDOUT|EHOSTUNREACH|ENETUNREACH|EAI_AGAIN|08\d{3}|57P0[123]|53300)$/;

/** Whether it is of use to try again later: the server cannot be reached, and has not said no. */
export function mayPass(error: unknown): boolean {
  const { code, message } = failureOf(error, false);
  // The driver itself has no code for a connection that ended.
  return code === '' ? /^Connection terminated|timeout exceeded/.test(message) : passing.test(code);
}

/** An error of the driver, the server or the system as what is told of it. */
export function failureOf(error: unknown, isLost: boolean): Failure {
  // A host with several addresses fails with an error for each.
  const first = error instanceof AggregateError ? (error.errors[0] as unknown) : error;
  const message = first instanceof Error ? first.message : String(first);
  const { code = '' } = first as { code?: string };
  return { message, code, isLost };
}
