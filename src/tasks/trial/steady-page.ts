/**
 * A script that gives a page the same chance every time (a linear congruential sequence would show in the pictures of some
 * pages; this is mulberry32, of one seed), and, where `epoch` is given, the time of its recording.
 *
 * @param epoch milliseconds since 1970 at which the page is to believe that it was opened; left out while recording
 */
export function steadyPage(epoch?: number): string {
  return `(() => {
  let state = 0x9e3779b9;
  Math.random = () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
  ${epoch === undefined ? '' : clockFrom(epoch)}
})();`;
}

function clockFrom(epoch: number): string {
  return `const Real = Date;
  const shift = ${Math.round(epoch)} - Real.now();
  const now = () => Real.now() + shift;
  Date = new Proxy(Real, {
    construct: (of, values, made) => Reflect.construct(of, values.length ? values : [now()], made),
    apply: () => new Real(now()).toString(),
    get: (of, name) => (name === 'now' ? now : Reflect.get(of, name)),
  });
  Real.prototype.constructor = Date;`;
}
