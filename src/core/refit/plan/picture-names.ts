/** A picture, and everything that a person may call it. */
export interface NamedPicture {
  readonly contentHash: string;
  /** Addresses, or paths below a folder. */
  readonly names: readonly string[];
}

/** The pictures that a name means, by content hash: none, one, or several. */
export type PicturesNamed = (name: string) => readonly string[];

/**
 * Finds pictures by what people call them: an address, its path, or as much of the end of the path as they care to
 * write.
 */
export function picturesByName(pictures: readonly NamedPicture[]): PicturesNamed {
  const byEnd = new Map<string, Set<string>>();
  for (const { contentHash, names } of pictures)
    for (const name of names)
      for (const end of endsOf(name)) {
        const known = byEnd.get(end) ?? new Set();
        byEnd.set(end, known.add(contentHash));
      }
  return (name) => [...(byEnd.get(name.replace(/^\.?\//, '')) ?? byEnd.get(name) ?? [])];
}

/** The whole name, its path, and every end of the path that begins at a folder or at the file. */
function endsOf(name: string): string[] {
  const path = URL.canParse(name) ? decoded(new URL(name).pathname) : name;
  const parts = path.split('/').filter(Boolean);
  return [name, ...parts.map((_, at) => parts.slice(at).join('/'))];
}

function decoded(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    return path;
  }
}
