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

/** What a channel is called where deliveries are kept: the same as long as it leads to the same place. */
export function nameOf(channel: AlarmChannel): string {
  switch (channel.kind) {
    case 'webhook':
      return `webhook ${channel.url}`;
    case 'email':
      return `email ${channel.to.join(', ')} by ${channel.server}`;
    case 'command':
      return `command ${channel.words.join(' ')}`;
  }
}
