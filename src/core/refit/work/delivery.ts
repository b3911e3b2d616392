import type { SiteFinding } from '../../findings/site/index.js';

/** What the settings of a server can mend of a site's own delivery. */
export interface DeliverySettings {
  /** Whether texts are to be compressed. */
  readonly compress: boolean;
  /** Whether static files are to be kept by browsers. */
  readonly keep: boolean;
  /** Whether browsers are to ask whether their documents are still good. */
  readonly askAgain: boolean;
  /** Whether connections are to be kept open. */
  readonly keepAlive: boolean;
  /** Whether several files are to share a connection (HTTP/2). */
  readonly share: boolean;
  /** Paths of files to join to one, in the order in which they are loaded, by what they are. */
  readonly joins: readonly { readonly what: string; readonly files: readonly string[] }[];
}

/** The settings that a survey's findings ask for; `null` where there is nothing to set. */
export function deliveryOf(found: readonly SiteFinding[]): DeliverySettings | null {
  const own = found.filter(({ thirdParty }) => !thirdParty);
  const has = (...ids: readonly SiteFinding['id'][]) => own.some(({ id }) => ids.includes(id));
  const joins = own
    .filter(({ id }) => id === 'many-files')
    .map(({ data }) => {
      const { kind, host, files } = data as { kind: string; host: string; files: string[] };
      return { what: `${kind} of ${host}`, files };
    });
  const settings = {
    compress: has('uncompressed-text'),
    keep: has('short-lifetime'),
    askAgain: has('long-lived-document'),
    keepAlive: has('closing-server'),
    share: has('old-protocol', 'many-files'),
    joins,
  };
  const { joins: _, ...switches } = settings;
  return Object.values(switches).some((on) => on) || joins.length > 0 ? settings : null;
}
