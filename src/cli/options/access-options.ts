import { accessesOf, forHost } from './access.js';
import { filePath, shortText, yesOrNo } from './checks.js';
import { option } from './option.js';
import type { SettingsOf } from './option.js';

/** Credentials for single hosts. */
export const accessOptions = {
  basic: option(
    'HOST=USER:PASSWORD, or HOST=$NAME of a variable: Basic credentials',
    forHost('HOST=USER:PASSWORD, or HOST=$NAME', /^(?:\$\w+|[^:]+:[^]*)$/),
  ),
  header: option(
    'HOST=NAME:VALUE: a header to send; the value may be $NAME of a variable',
    forHost('HOST=NAME:VALUE', /^[!#$%&'*+.^`|~\w-]+:[^\r\n\0]*$/),
  ),
  cookie: option(
    'HOST=NAME=VALUE: a cookie to send; the value may be $NAME of a variable',
    forHost('HOST=NAME=VALUE', /^[!#$%&'*+.^`|~\w-]+=[^\r\n\0;]*$/),
  ),
};

/** What servers are told of the visitor, and what they are believed. */
export const visitorOptions = (userAgent: string) => ({
  userAgent: option('Name to send to servers', shortText(), userAgent),
  ...accessOptions,
  browserState: option('File of cookies and local storage that a browser saved', filePath()),
  anyCertificate: option('Accept certificates that do not verify', yesOrNo().default(false)),
});

/** The settings of a call that say who the visitor is. */
export const visitorOf = (
  settings: SettingsOf<ReturnType<typeof visitorOptions>>,
  file: Parameters<typeof accessesOf>[0],
) => ({
  userAgent: settings.userAgent,
  accesses: accessesOf(file, settings, process.env),
  browserState: settings.browserState,
  anyCertificate: settings.anyCertificate,
});
