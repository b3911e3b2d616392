import { array, mixed, string } from 'yup';
import type { InferType } from 'yup';
import type { Access } from '../../core/address/access.js';
import { SettingError } from '../../core/base/errors.js';
import { settingsOf } from './checks.js';

/** Settings whose values are never shown, not even where they are wrong. */
export const secretSettings: ReadonlySet<string> = new Set([
  ...['basic', 'header', 'cookie', 'access', 'alarms'],
]);

const hostName = /^(?:\*\.)?[\w.-]+$/;
const headerName = /^[!#$%&'*+.^`|~\w-]+$/;

/** Texts by name, as a mapping of the config file. */
const texts = (allowed: string) =>
  mixed<Readonly<Record<string, string>>>().test(
    'texts',
    allowed,
    (value) =>
      value === undefined ||
      (typeof value === 'object' &&
        Object.entries(value).every(
          ([name, text]) =>
            headerName.test(name) && typeof text === 'string' && !/[\r\n\0]/.test(text),
        )),
  );

/** The credentials in the config file. */
export const accessSchema = array()
  .of(
    settingsOf({
      host: string()
        .matches(hostName, 'a host name, or one that begins with *.')
        .required('a host name'),
      basic: settingsOf({
        user: string().required('a user'),
        password: string().defined('a password'),
      }).default(undefined),
      headers: texts('headers by name, each a text'),
      cookies: texts('cookies by name, each a text'),
    }),
  )
  .typeError('a list of hosts with their access data');

/** `HOST=USER:PASSWORD` and the like: a host and its value. */
export const forHost = (allowed: string, shape: RegExp) =>
  array()
    .of(
      string()
        .defined()
        .test(
          'for-host',
          allowed,
          (text) =>
            hostName.test(text.split('=', 1)[0]!) && shape.test(text.slice(text.indexOf('=') + 1)),
        ),
    )
    .typeError(allowed)
    .default([]);

/** The options of a call, in the words of the config file. */
export interface AccessFlags {
  readonly basic: readonly string[];
  readonly header: readonly string[];
  readonly cookie: readonly string[];
}

/**
 * The credentials of a call. A value that is `$NAME` and nothing else is read from the environment, so that
 * secrets need not be in a file or a call.
 *
 * @throws SettingError when the environment does not have it.
 */
export function accessesOf(
  file: InferType<typeof accessSchema>,
  flags: AccessFlags,
  environment: NodeJS.ProcessEnv,
): Access[] {
  const value = (text: string, where: string) => {
    const name = /^\$(\w+)$/.exec(text)?.[1];
    const found = name === undefined ? text : environment[name];
    if (found !== undefined) return found;
    throw new SettingError(`${where}: there is no environment variable ${name}`, {
      hint: `set it before the call: ${name}=… zealous-lynx …`,
    });
  };
  const values = (map: Readonly<Record<string, string>> | undefined, where: string) =>
    map &&
    Object.fromEntries(Object.entries(map).map(([name, text]) => [name, value(text, where)]));
  const ofFile = (file ?? []).map(({ host, basic, headers, cookies }) => ({
    host,
    basic: basic && {
      user: value(basic.user, 'access: basic'),
      password: value(basic.password, 'access: basic'),
    },
    headers: values(headers, 'access: headers'),
    cookies: values(cookies, 'access: cookies'),
  }));
  const ofFlags = [
    ...flags.basic.map((text): Access => {
      const [host, given] = cut(text, '=');
      const [user, password] = cut(value(given, '--basic'), ':');
      return { host, basic: { user, password } };
    }),
    ...flags.header.map((text): Access => {
      const [host, given] = cut(text, '=');
      const [name, header] = cut(given, ':');
      return { host, headers: { [name.trim()]: value(header.trim(), '--header') } };
    }),
    ...flags.cookie.map((text): Access => {
      const [host, given] = cut(text, '=');
      const [name, cookie] = cut(given, '=');
      return { host, cookies: { [name.trim()]: value(cookie, '--cookie') } };
    }),
  ];
  return [...ofFile, ...ofFlags];
}

/** A text before and behind a sign. */
function cut(text: string, sign: string): [string, string] {
  const at = text.indexOf(sign);
  return at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at + 1)];
}
