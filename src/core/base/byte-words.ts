/** Units of bytes with the digits behind the point; each up to where its rounded number would have four digits. */
const units = [
  { unit: 'B', size: 1, digits: 0, below: 999.5 },
  { unit: 'kB', size: 1e3, digits: 1, below: 9_950 },
  { unit: 'kB', size: 1e3, digits: 0, below: 999_500 },
  { unit: 'MB', size: 1e6, digits: 2, below: 999_995_000 },
  { unit: 'GB', size: 1e9, digits: 2, below: Infinity },
] as const;

/** Bytes as people read them, rounded, the same wherever they are told: `812 B`, `7.3 kB`, `64 kB`, `1.30 MB`. */
export function formatBytes(bytes: number): string {
  const size = Math.abs(bytes);
  const { unit, size: one, digits } = units.find(({ below }) => size < below) ?? units[4];
  return `${(bytes / one).toFixed(digits)} ${unit}`;
}
