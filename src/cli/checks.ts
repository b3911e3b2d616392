import { array, boolean, mixed, number, string } from 'yup';

/**
 * The kinds of values that settings have. The message of each says what is allowed; where the value
 * came from and what it was is put before it by whoever reports it.
 */

/** A whole number from `low` to `high`. */
export function wholeNumber(low: number, high: number) {
  const allowed = `a whole number from ${low.toLocaleString('en')} to ${high.toLocaleString('en')}`;
  return number().typeError(allowed).integer(allowed).min(low, allowed).max(high, allowed);
}

/** A number from `low` to `high`. */
export function numberFrom(low: number, high: number) {
  const allowed = `a number from ${low.toLocaleString('en')} to ${high.toLocaleString('en')}`;
  return number().typeError(allowed).min(low, allowed).max(high, allowed);
}

/** One of several words. */
export function oneOf<Word extends string>(words: readonly Word[]) {
  return mixed<Word>().oneOf(words, `one of ${words.join(', ')}`);
}

/** Text that is not empty, at most 200 characters. */
export function shortText() {
  const allowed = 'a text of 1 to 200 characters';
  return string().typeError(allowed).min(1, allowed).max(200, allowed);
}

/** Yes or no. */
export function yesOrNo() {
  return boolean().typeError('true or false');
}

/** Several texts: a list, or one text in which commas stand between them. */
export function textList(allowed: string) {
  return array()
    .transform((value: unknown, original: unknown) =>
      typeof original === 'string' ? original.split(',') : value,
    )
    .of(string().defined().min(1, allowed).max(2_000, allowed))
    .typeError(allowed);
}

/** Hosts that are found elsewhere, as `host=address:port`. */
export function hostMappings() {
  const allowed = 'HOST=ADDRESS:PORT, like brindlebay.test=127.0.0.1:8080';
  return textList(allowed).of(
    string()
      .defined()
      .matches(/^[\w.*-]+=[\w.[\]:-]+$/, allowed),
  );
}
