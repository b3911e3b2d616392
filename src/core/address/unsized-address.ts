/** Ends of file names that name a size: `-1024x768`, `_w800`, `-800w`, `@2x`, `-scaled`. */
const nameEnds = [
  /[-_.@]\d{1,5}x\d{1,5}$/i,
  /[-_.](?:w|h)[-_]?\d{2,5}$/i,
  /[-_.]\d{2,5}(?:w|h|px)$/i,
  /@\d(?:\.\d)?x$/i,
  /[-_.](?:scaled|thumb|thumbnail|mini|small|medium|large|full|original)$/i,
] as const;

/** Beginnings of file names that name a size: `800px-`, `thumb_`. */
const nameStarts = [
  /^\d{2,5}(?:px|w)[-_]/i,
  /^(?:thumb|thumbnail|small|medium|large)[-_]/i,
] as const;

/** A folder that names a size or how a picture is prepared: `w_800,h_600`, `800x600`, `w300`, `thumbs`. */
const sizeFolder =
  /^(?:\d{1,5}x\d{1,5}|[wh]\d{2,5}|\d{2,5}(?:px|w)|thumbs?|thumbnails?|small|medium|large|full|originals?)$/i;
const preparation =
  /^(?:w|h|c|q|f|g|dpr|ar|width|height|quality|format|fit|crop|resize|gravity)[_=:][\w.:-]+$/i;

/** Parameters of a query that name a size or how a picture is prepared. */
const preparing = new Set(
  'w h q s width height quality size resize fit crop dpr format fm auto scale sharpen strip ssl'.split(
    ' ',
  ),
);

/** Letters beyond which a name is not looked at. */
const longest = 2_000;

/**
 * An address without what names a size in it, as the larger file behind it is often called: `photo-1024x768.jpg` becomes
 * `photo.jpg`, `/w_800/photo.jpg` becomes `/photo.jpg`, `photo.jpg?w=800` becomes `photo.jpg`.
 *
 * @param sides pixels of the file: a bare number at the end of its name (`photo-800.jpg`) names a size where it is one of them
 * @returns the same address where it names none
 */
export function unsizedAddress(address: string, sides: readonly number[] = []): string {
  if (address.length > longest || !URL.canParse(address)) return address;
  const url = new URL(address);
  const segments = url.pathname.split('/');
  const name = segments.pop() ?? '';
  const folders = segments.filter((segment) => !namesSize(segment));
  url.pathname = [...folders, unsizedName(name, sides)].join('/');
  for (const parameter of [...url.searchParams.keys()])
    if (preparing.has(parameter.toLowerCase())) url.searchParams.delete(parameter);
  return url.href;
}

/**
 * What the addresses of the files of one picture have in common, as far as names tell: the address without a size and without
 * the ends of formats.
 */
export function pictureKey(address: string, sides: readonly number[] = []): string {
  const { origin, pathname, search } = new URL(unsizedAddress(address, sides));
  const bare = unsizedName(pathname.replace(formats, ''), sides);
  return origin + bare.replace(formats, '').toLowerCase() + search;
}

/** One or two ends of formats: `photo.jpg.webp`. */
const formats = /(?:\.(?:jpe?g|png|gif|webp|avif|jxl|tiff?|bmp|jfif)){1,2}$/i;

function namesSize(segment: string): boolean {
  if (segment === '') return false;
  return (
    sizeFolder.test(segment) || segment.split(/,|%2C/i).every((part) => preparation.test(part))
  );
}

function unsizedName(name: string, sides: readonly number[]): string {
  const extension = formats.exec(name)?.[0] ?? '';
  let stem = name.slice(0, name.length - extension.length);
  // `photo-1024x768@2x`: one end behind another.
  for (let shorter = withoutOne(stem, sides); shorter !== stem; shorter = withoutOne(stem, sides))
    stem = shorter;
  return stem + extension;
}

function withoutOne(stem: string, sides: readonly number[]): string {
  const bare = /[-_.](\d{2,5})$/.exec(stem);
  if (bare && bare.index > 0 && sides.includes(Number(bare[1]))) return stem.slice(0, bare.index);
  for (const pattern of [...nameEnds, ...nameStarts]) {
    const shorter = stem.replace(pattern, '');
    if (shorter !== stem && shorter !== '') return shorter;
  }
  return stem;
}
