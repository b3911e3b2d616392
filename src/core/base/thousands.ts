/** A whole number as people read it: `1,234,567`. */
export function grouped(number: number): string {
  return Math.round(number).toLocaleString('en');
}
