/** Names under which servers put the number of a session into addresses. */
const sessionNames =
  /^(?:j?session_?id|phpsessid|aspsessionid\w*|cfid|cftoken|sid|sess_?id|s_?id|zenid|oscsid)$/i;

/** `;name=value` behind a segment of a path. */
const parameter = /;([^=;/]+)=[^;/]*/g;

/** `(S(token))`, a segment that some servers put first. */
const tokenSegment = /\/\((?:[A-Z]\([A-Za-z0-9]+\))+\)(?=\/|$)/g;

/** What every token comes with. */
const mayHaveToken = /[?;]|\/\(/;

/** An address without a session id in its path or query, so that one page has one address for every visitor. */
export function withoutTokens(address: string): string {
  if (!mayHaveToken.test(address)) return address;
  const url = new URL(address);
  const pathname = url.pathname
    .replace(tokenSegment, '')
    .replace(parameter, (whole, name: string) => (sessionNames.test(name) ? '' : whole));
  const keys = [...url.searchParams.keys()].filter((name) => sessionNames.test(name));
  if (pathname === url.pathname && keys.length === 0) return address;
  url.pathname = pathname;
  for (const key of keys) url.searchParams.delete(key);
  return url.href;
}
