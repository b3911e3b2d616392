/**
 * How a document names a picture without showing it: as the target of a link, for other programs (`og:image`, structured
 * data), as an icon, for its own scripts (`data-full-url`), or in a file that it points to.
 */
export type UseKind = 'link' | 'metadata' | 'icon' | 'script' | NamingFile['kind'];

/** A file that a document points to and that may name pictures. */
export interface NamingFile {
  readonly url: string;
  /** A feed, or the manifest of a web application. */
  readonly kind: 'feed' | 'manifest';
}

/** An address of a picture that a page names, so that somebody may ask for it in its full size. */
export interface PictureUse {
  readonly url: string;
  readonly kind: UseKind;
  /** The first page that names it. */
  readonly page: string;
}

/** Each address once for each kind of use, with its first page. */
export function distinctUses(uses: readonly PictureUse[]): PictureUse[] {
  const found = new Map<string, PictureUse>();
  for (const use of uses) {
    const key = `${use.kind} ${use.url}`;
    if (!found.has(key)) found.set(key, use);
  }
  return [...found.values()];
}
