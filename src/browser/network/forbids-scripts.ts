import type { RecordedRequest } from './recorded-request.js';

/**
 * Whether a response forbids all scripts in its document: a policy with `sandbox` that does not allow them (Content Security
 * Policy Level 3, section 6.3.2). Several policies hold together, each in a header of its own or after a comma.
 */
export function forbidsScripts({
  responseHeaders,
}: Pick<RecordedRequest, 'responseHeaders'>): boolean {
  return responseHeaders
    .filter(({ name }) => name.toLowerCase() === 'content-security-policy')
    .flatMap(({ value }) => value.split(/[,\n]/))
    .some((policy) =>
      policy.split(';').some((directive) => {
        const [name, ...values] = directive.trim().toLowerCase().split(/\s+/);
        return name === 'sandbox' && !values.includes('allow-scripts');
      }),
    );
}
