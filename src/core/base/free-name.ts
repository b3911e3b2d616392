/**
 * A name that is not taken: the name itself, or with the first free number from 2 on.
 *
 * @param numbered what a name with a number looks like
 */
export function freeName(
  name: string,
  isTaken: (name: string) => boolean,
  numbered: (name: string, number: number) => string = (one, number) => `${one}-${number}`,
): string {
  let free = name;
  for (let number = 2; isTaken(free); number++) free = numbered(name, number);
  return free;
}
