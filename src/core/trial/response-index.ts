import { groupBy } from '../base/group-by.js';

/** How a request was matched with a response: by its whole address, or by what stays the same of it. */
export type MatchKind = 'exact' | 'alike';

export interface Match<Response> {
  readonly kind: MatchKind;
  readonly response: Response;
}

interface Addressed {
  readonly request: { readonly method: string; readonly url: string };
}

/**
 * The responses of a recording by request. Addresses that differ from load to load (cache busters, moments, random ids)
 * are matched by what stays the same: the path, without numbers and ids in it, and the names of the parameters; of several,
 * the one with the most equal values.
 *
 * The same request made several times gets its responses in turn, and the last of them from then on.
 */
export class ResponseIndex<Response extends Addressed> {
  readonly #exact: ReadonlyMap<string, readonly Response[]>;
  readonly #alike: ReadonlyMap<string, readonly Response[]>;
  readonly #turns = new Map<string, number>();

  constructor(responses: readonly Response[]) {
    this.#exact = groupBy(responses, ({ request }) => `${request.method} ${request.url}`);
    this.#alike = groupBy(responses, ({ request }) => steadyPart(request.method, request.url));
  }

  /** A new load begins. */
  begin(): void {
    this.#turns.clear();
  }

  find(method: string, url: string): Match<Response> | null {
    const whole = `${method} ${url}`;
    const same = this.#exact.get(whole);
    if (same) return { kind: 'exact', response: this.#inTurn(whole, same) };
    const key = steadyPart(method, url);
    const some = this.#alike.get(key);
    if (!some) return null;
    const best = Math.max(...some.map(({ request }) => equalValues(request.url, url)));
    const nearest = some.filter(({ request }) => equalValues(request.url, url) === best);
    return { kind: 'alike', response: this.#inTurn(key, nearest) };
  }

  #inTurn(key: string, some: readonly Response[]): Response {
    const turn = this.#turns.get(key) ?? 0;
    this.#turns.set(key, turn + 1);
    return some[Math.min(turn, some.length - 1)]!;
  }
}

/** A part of a path or value that looks made up for one load: a long number, hexadecimal digits, an id. */
const volatile =
  /[0-9a-f]{8}(?:-?[0-9a-f]{4}){2,}[0-9a-f-]*|\b(?=[\w-]*\d)(?=[\w-]*[a-z])[\w-]{16,}\b|\d{6,}/gi;

/** What an address and its likes have in common. */
function steadyPart(method: string, address: string): string {
  if (!URL.canParse(address)) return `${method} ${address}`;
  const { origin, pathname, searchParams } = new URL(address);
  const names = [...new Set(searchParams.keys())].map((name) => name.replace(volatile, '*')).sort();
  return `${method} ${origin}${pathname.replace(volatile, '*')}?${names.join('&')}`;
}

function equalValues(one: string, other: string): number {
  if (!URL.canParse(one) || !URL.canParse(other)) return 0;
  const values = [...new URL(other).searchParams].map(([name, value]) => `${name}=${value}`);
  const known = new Set(values);
  return [...new URL(one).searchParams].filter(([name, value]) => known.has(`${name}=${value}`))
    .length;
}
