/** Credentials for a host; never stored and never shown. */
export interface Access {
  /** Host name, without port; one that begins with `*.` means all hosts below. */
  readonly host: string;
  readonly basic?: { readonly user: string; readonly password: string } | undefined;
  readonly headers?: Readonly<Record<string, string>> | undefined;
  readonly cookies?: Readonly<Record<string, string>> | undefined;
}

/** Whether the credentials of a host apply to this address. */
export function isFor({ host }: Access, address: string): boolean {
  if (!URL.canParse(address)) return false;
  const { hostname } = new URL(address);
  return host.startsWith('*.') ? hostname.endsWith(host.slice(1)) : hostname === host;
}

/**
 * The headers that an address is to be asked with, names in lower case; Basic credentials as RFC 7617
 * writes them, in UTF-8.
 */
export function accessHeaders(
  accesses: readonly Access[],
  address: string,
): Readonly<Record<string, string>> {
  const headers: Record<string, string> = {};
  for (const access of accesses) {
    if (!isFor(access, address)) continue;
    const { basic, headers: own = {} } = access;
    if (basic) headers['authorization'] = `Basic ${base64(`${basic.user}:${basic.password}`)}`;
    for (const [name, value] of Object.entries(own)) headers[name.toLowerCase()] = value;
  }
  return headers;
}

function base64(text: string): string {
  return btoa(String.fromCharCode(...new TextEncoder().encode(text)));
}

/** An address without its user and password, and these as an access. */
export function splitCredentials(address: string): { address: string; access?: Access } {
  if (!/^https?:\/\/[^/?#]*@/i.test(address) || !URL.canParse(address)) return { address };
  const url = new URL(address);
  const basic = {
    user: decodeURIComponent(url.username),
    password: decodeURIComponent(url.password),
  };
  url.username = '';
  url.password = '';
  return { address: url.href, access: { host: url.hostname, basic } };
}
