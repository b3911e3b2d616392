import { array, string } from 'yup';
import type { InferType } from 'yup';
import { SettingError } from '../../core/base/errors.js';
import type { AlarmChannel } from '../../tasks/watch/channels/channel.js';
import { settingsOf, shortText, textList } from './checks.js';

const email = settingsOf({
  to: textList('addresses of mail')
    .min(1, 'at least one address of mail')
    .required('addresses of mail'),
  from: shortText().required('an address of mail'),
  server: string()
    .matches(/^smtps?:\/\/[\w.[\]:-]+$/, 'smtp://HOST:PORT or smtps://HOST:PORT')
    .required('smtp://HOST:PORT or smtps://HOST:PORT'),
  user: shortText(),
  password: string(),
});

const channel = settingsOf({
  webhook: string().matches(
    /^https?:\/\/[^\s]+$/,
    'an address that begins with http:// or https://',
  ),
  secret: string(),
  email: email.default(undefined),
  command: array()
    .of(string().defined().min(1))
    .min(1)
    .typeError('a list of words: the program, and what it is given'),
}).test(
  'one',
  'one of webhook, email and command',
  ({ webhook, email: mail, command }) =>
    [webhook, mail, command].filter((one) => one !== undefined).length === 1,
);

/** Who is told of alarms, in the config file. */
export const alarmsSchema = array().of(channel).typeError('a list of channels');

/**
 * The channels of a config file. A secret that is `$NAME` and nothing else is read from the environment.
 *
 * @throws SettingError when the environment does not have it.
 */
export function channelsOf(
  channels: InferType<typeof alarmsSchema>,
  environment: NodeJS.ProcessEnv,
): AlarmChannel[] {
  return (channels ?? []).map(({ webhook, secret, email: mail, command }, at): AlarmChannel => {
    const valueOf = (text: string | undefined, where: string) => {
      const name = /^\$(\w+)$/.exec(text ?? '')?.[1];
      const found = name === undefined ? text : environment[name];
      if (found !== undefined || name === undefined) return found;
      throw new SettingError(`alarms[${at}].${where}: there is no environment variable ${name}`, {
        hint: `set it before the call: ${name}=… zealous-lynx …`,
      });
    };
    if (webhook !== undefined)
      return { kind: 'webhook', url: webhook, secret: valueOf(secret, 'secret') };
    if (mail !== undefined)
      return { ...mail, kind: 'email', password: valueOf(mail.password, 'email.password') };
    return { kind: 'command', words: command! };
  });
}
