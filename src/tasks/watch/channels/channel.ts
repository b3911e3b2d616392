import { createHash } from 'node:crypto';
import { hostOf } from '../../../core/address/address.js';

/** A way to tell somebody of alarms. */
export type AlarmChannel =
  | {
      readonly kind: 'webhook';
      readonly url: string;
      /** Signs what is sent. */
      readonly secret?: string | undefined;
    }
  | {
      readonly kind: 'email';
      readonly to: readonly string[];
      readonly from: string;
      /** `smtp://HOST:PORT` or `smtps://HOST:PORT`. */
      readonly server: string;
      readonly user?: string | undefined;
      readonly password?: string | undefined;
    }
  | { readonly kind: 'command'; readonly words: readonly string[] };

/**
 * What a channel is called where deliveries are kept and told: the same as long as it leads to the same place. Addresses of
 * webhooks and what commands are given may let somebody in: a few digits of their digest stand for them.
 */
export function nameOf(channel: AlarmChannel): string {
  switch (channel.kind) {
    case 'webhook':
      return `webhook at ${hostOf(channel.url)} (${digestOf(channel.url)})`;
    case 'email':
      return `email to ${channel.to.join(', ')}`;
    case 'command':
      return `command ${channel.words[0] ?? ''} (${digestOf(channel.words.join('\n'))})`;
  }
}

function digestOf(text: string): string {
  return createHash('sha256').update(text).digest('hex').slice(0, 6);
}
