// Sets the clock of the program that it is loaded into wrong, by CLOCK_SHIFT milliseconds.
const shift = Number(process.env.CLOCK_SHIFT);
const RealDate = Date;

globalThis.Date = class extends RealDate {
  constructor(...given) {
    if (given.length === 0) super(RealDate.now() + shift);
    else super(...given);
  }

  static now() {
    return RealDate.now() + shift;
  }
};
