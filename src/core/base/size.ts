/** Width and height, in the pixels its context names (CSS pixels, or pixels of a file). */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/** The number of pixels in a size. */
export function area({ width, height }: Size): number {
  return width * height;
}

/** `size` as people write it: `1366×768`, whole pixels. */
export function formatSize({ width, height }: Size): string {
  return `${Math.round(width)}×${Math.round(height)}`;
}
