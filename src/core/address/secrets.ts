/** Names of parameters whose values let somebody in, or sign what they stand in. */
const names = [
  '(?:access|refresh|id|auth|api|session|security|csrf|xsrf|bearer|user|app)?[-_]?token',
  '(?:api|access|secret|private|auth|app|client|subscription)[-_]?key(?:[-_]?id)?',
  'key(?:-pair-id)?',
  '(?:client)?[-_]?secret',
  '(?:x-(?:amz|goog)-)?(?:sig|signature|credential|security-token)s?',
  'pass(?:word|wd|phrase)?',
  'pwd',
  'auth(?:orization)?',
  'jwt',
  'hmac',
  'sas',
];

/** In a query, a fragment, or behind a segment of a path; also where `&` is written as it is in HTML. */
const parameters = new RegExp(
  `([?&;#](?:amp;)?(?:${names.join('|')})=)(?!\\*\\*\\*)[^&;#\\s"'<>\`\\\\)|,]+`,
  'gi',
);

const credentials = /(\bhttps?:\/\/)[^\s/?#@"'<>]+@/gi;

/** Of a database the user may be told. */
const databasePassword = /(\bpostgres(?:ql)?:\/\/[^\s/?#@:"'<>]*:)[^\s/?#@"'<>]+@/gi;

/** What stands for a secret. */
export const maskedSecret = '***';

/** A text in which no address tells a secret: no user and password, and no value that looks like a token or a signature. */
export function withoutSecrets(text: string): string {
  if (!text.includes('=') && !text.includes('@')) return text;
  return text
    .replace(parameters, `$1${maskedSecret}`)
    .replace(credentials, `$1${maskedSecret}@`)
    .replace(databasePassword, `$1${maskedSecret}@`);
}
