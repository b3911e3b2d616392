/** The parts of jstat that are used; it brings no types of its own. */
declare module 'jstat' {
  interface Jstat {
    readonly studentt: { inv(probability: number, degreesOfFreedom: number): number };
    readonly normal: { inv(probability: number, mean: number, deviation: number): number };
  }
  const jstat: Jstat;
  export default jstat;
}
