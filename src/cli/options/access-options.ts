import { forHost } from './access.js';
import { option } from './option.js';

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
