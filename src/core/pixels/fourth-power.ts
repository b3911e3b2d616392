export function fourthPower(value: number): number {
  const squared = value * value;
  return squared * squared;
}
