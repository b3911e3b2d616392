/** The luminance of a picture is kept in so many steps: enough that black and the darkest greys have their own. */
const steps = 65_535;

/** What each byte of red, green and blue adds to the luminance (sRGB, IEC 61966-2-1), in steps. */
const [reds, greens, blues] = [0.2126, 0.7152, 0.0722].map((share) =>
  Float64Array.from({ length: 256 }, (_, byte) => share * linear(byte / 255) * steps),
) as [Float64Array, Float64Array, Float64Array];

/** The lightness of each step of luminance. */
const lightness = Uint8Array.from({ length: steps + 1 }, (_, step) =>
  Math.round(2.55 * (116 * compressed(step / steps) - 16)),
);

/**
 * How light an sRGB colour looks: L* of CIE 1976 (CIE 15:2004, equation 8.3), from 0 to 255 in place of 100. Unlike luma, it
 * is the same for all colours that look equally light, so that it sees detail in what is deep red or blue.
 */
export function lightnessOf(red: number, green: number, blue: number): number {
  // Cutting off is faster than rounding, and what is lost by it is less than a step.
  return lightness[(reds[red]! + greens[green]! + blues[blue]!) | 0]!;
}

function linear(value: number): number {
  return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
}

function compressed(luminance: number): number {
  return luminance > 216 / 24_389 ? Math.cbrt(luminance) : ((24_389 / 27) * luminance + 16) / 116;
}
