import { array, boolean, mixed, number, object, string } from 'yup';
import type { ObjectShape } from 'yup';
import type { CheckNotes } from './option.js';

/**
 * The kinds of values that settings have. The message of each says what is allowed; the caller that reports it
 * adds where the value came from and what it was.
 */

/** A whole number from `low` to `high`. */
export function wholeNumber(low: number, high: number) {
  // Written out when it is needed: the first number that is formatted costs more than the rest of a check.
  const allowed = () =>
    `a whole number from ${low.toLocaleString('en')} to ${high.toLocaleString('en')}`;
  return number()
    .typeError(allowed)
    .integer(allowed)
    .min(low, allowed)
    .max(high, allowed)
    .meta({ allowed } satisfies CheckNotes);
}

/** A number from `low` to `high`. */
export function numberFrom(low: number, high: number) {
  const allowed = () => `a number from ${low.toLocaleString('en')} to ${high.toLocaleString('en')}`;
  return number()
    .typeError(allowed)
    .min(low, allowed)
    .max(high, allowed)
    .meta({ allowed } satisfies CheckNotes);
}

/** One of several words. */
export function oneOf<Word extends string>(words: readonly Word[]) {
  return mixed<Word>().oneOf(words, `one of ${words.join(', ')}`);
}

/** Any number of some words. */
export function someOf<Word extends string>(words: readonly Word[]) {
  return array().of(oneOf(words).defined()).default([]);
}

/** Text that is not empty, at most 200 characters. */
export function shortText() {
  const allowed = 'a text of 1 to 200 characters';
  return string().typeError(allowed).min(1, allowed).max(200, allowed);
}

/** The path of a file. */
export function filePath() {
  return pathTo('file');
}

/** The path of a folder. */
export function folderPath() {
  return pathTo('folder');
}

/** Where a workspace is: the path of a folder, or the address of a database. */
export function workspacePlace() {
  return pathTo('folder', 'the path of a folder, or postgres://user@host/database');
}

function pathTo(path: 'file' | 'folder', allowed = `the path of a ${path}`) {
  return string()
    .typeError(allowed)
    .min(1, allowed)
    .meta({ path, allowed: () => allowed } satisfies CheckNotes);
}

/** Yes or no. */
export function yesOrNo() {
  return boolean().typeError('true or false');
}

/** Several texts: a list, or one text separated by commas. */
export function textList(allowed: string) {
  return array()
    .transform((value: unknown, original: unknown) =>
      typeof original === 'string' ? original.split(',') : value,
    )
    .of(string().defined().min(1, allowed).max(2_000, allowed))
    .typeError(allowed)
    .meta({ allowed: () => allowed } satisfies CheckNotes);
}

/** Settings that belong together, and no others: a name that is not among them is a typing error. */
export function settingsOf<Fields extends ObjectShape>(fields: Fields) {
  const names = Object.keys(fields);
  const allowed = `the settings ${names.join(', ')}`;
  return object(fields)
    .typeError(allowed)
    .test('known', allowed, (_value, context) => {
      // What the check itself is given has lost what it does not know.
      const given: unknown = context.originalValue;
      const unknown = Object.keys(given ?? {}).find((name) => !names.includes(name));
      if (unknown === undefined) return true;
      return context.createError({ message: `${allowed}; there is no ${unknown}` });
    });
}

/** Hosts that are mapped elsewhere, as `host=address:port`. */
export function hostMappings() {
  const allowed = 'HOST=ADDRESS:PORT, like brindlebay.test=127.0.0.1:8080';
  return textList(allowed).of(
    string()
      .defined()
      .matches(/^[\w.*-]+=[\w.[\]:-]+$/, allowed),
  );
}
