/** A segment that is a number, a date, a token or the like: it names one thing of many. */
const oneOfMany = /\d|^[A-Za-z0-9_-]{24,}$/;

/**
 * The common shape of the addresses of pages made from one template: the host, the path with `*` for its last
 * segment and for every segment that has digits or is a token, and the names of the query's keys.
 *
 * The address `http://a.test/shop/2026/kites?page=1&day=2` has the shape `http://a.test/shop/STAR/STAR?day&page`,
 * each STAR a `*`.
 */
export function addressPattern(address: string): string {
  const { origin, pathname, searchParams } = new URL(address);
  const segments = pathname.split('/').filter(Boolean);
  const last = segments.length - 1;
  const shape = segments.map((segment, index) =>
    index === last || oneOfMany.test(segment) ? '*' : segment,
  );
  const keys = [...new Set(searchParams.keys())].sort();
  return `${origin}/${shape.join('/')}${keys.length > 0 ? `?${keys.join('&')}` : ''}`;
}

/**
 * Whether a path repeats itself, as paths do that grow out of relative links: one segment four times, or
 * three times without another between. Numbers, as in dates, do not count.
 */
export function repeatsItself(address: string): boolean {
  const segments = new URL(address).pathname.split('/').filter(Boolean);
  const times = new Map<string, number>();
  return segments.some((segment, index) => {
    if (/^\d+$/.test(segment)) return false;
    const seen = (times.get(segment) ?? 0) + 1;
    times.set(segment, seen);
    return seen >= 4 || (segment === segments[index - 1] && segment === segments[index - 2]);
  });
}
