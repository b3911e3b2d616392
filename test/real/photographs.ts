import { readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';

/** Packages of Debian with photographs for desktops. */
export const photographPackages = [
  ...['gnome-backgrounds', 'mate-backgrounds', 'plasma-workspace-wallpapers', 'ukui-wallpapers'],
  'xfdesktop4-data',
];

const folders = ['/usr/share/backgrounds', '/usr/share/wallpapers', '/usr/share/xfce4/backdrops'];

/** The largest side and the bytes to a pixel from which on a file is taken for a photograph. */
const leastSide = 1_600;
const leastDensity = 0.12;

/** Photographs that are installed, in a fixed order, none of a name twice. */
export async function photographs(most: number): Promise<string[]> {
  const found = new Map<string, string>();
  const paths = folders.flatMap(filesBelow).filter((path) => /\.(?:jpe?g|png|webp)$/i.test(path));
  for (const path of paths.sort()) {
    if (found.size >= most) break;
    const { width = 0, height = 0 } = await sharp(path).metadata();
    const picture = path.split('/').find((_, at, all) => all[at + 1] === 'contents') ?? path;
    const { size: bytes } = statSync(path);
    const isRich = bytes / (width * height) >= leastDensity;
    if (Math.max(width, height) >= leastSide && isRich && !found.has(picture))
      found.set(picture, path);
  }
  return [...found.values()];
}

function filesBelow(folder: string): string[] {
  try {
    return readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map(({ parentPath, name }) => join(parentPath, name));
  } catch {
    return [];
  }
}

/** A photograph as a camera delivers it: a JPEG of good quality, with its side cut to a number of pixels. */
export async function fromCamera(path: string, side: number): Promise<Buffer> {
  return sharp(path)
    .resize(side, side, { fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 92 })
    .toBuffer();
}
