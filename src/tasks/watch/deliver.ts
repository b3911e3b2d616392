import { messageOf } from '../../core/base/errors.js';
import { pause } from '../../crawl/pacer.js';
import type { KeptAlarm } from '../../store/alarms.js';
import type { Workspace } from '../../store/workspace.js';
import type { Trace } from '../progress.js';
import { nameOf } from './channels/channel.js';
import type { AlarmChannel } from './channels/channel.js';
import type { AlarmMessage } from './channels/message.js';
import type { Trouble } from './trouble.js';

export interface DeliverOptions {
  readonly hosts: readonly string[];
  readonly channels: readonly AlarmChannel[];
  readonly signal: AbortSignal;
  readonly onTrace: Trace;
}

/** What was told, and what could not be: it is tried again in the next round. */
export interface Delivered {
  readonly told: number;
  readonly failed: readonly { readonly channel: string; readonly reason: string }[];
}

/** Attempts to tell of one alarm in one round, with a longer rest after each. */
const attempts = 3;
const firstRest = 1_000;

/** Tells every channel of the alarms that it has not heard of, each once when it begins and once when it is over. */
export async function deliver(
  { alarms }: Pick<Workspace, 'alarms'>,
  { hosts, channels, signal, onTrace }: DeliverOptions,
): Promise<Delivered> {
  let told = 0;
  const failed: { channel: string; reason: string }[] = [];
  for (const channel of channels) {
    const name = nameOf(channel);
    for (const { alarm, occasion } of alarms.untold(name)) {
      if (signal.aborted) break;
      const message = { hosts, occasion, alarm: alarm as KeptAlarm & { document: Trouble } };
      const error = await tellPatiently(channel, message, signal);
      const now = new Date().toISOString();
      alarms.noteDelivery(alarm.id, name, occasion, {
        deliveredAt: error === undefined ? now : null,
        error: error ?? null,
      });
      onTrace('alarm', { channel: name, occasion, id: alarm.id, error });
      if (error === undefined) told++;
      else {
        failed.push({ channel: name, reason: error });
        // What it did not take now it will not take a moment later.
        break;
      }
    }
  }
  return { told, failed };
}

/** Tells a channel of an alarm; returns why it could not be told. */
async function tellPatiently(
  channel: AlarmChannel,
  message: AlarmMessage,
  signal: AbortSignal,
): Promise<string | undefined> {
  for (let attempt = 1; ; attempt++) {
    try {
      await tell(channel, message);
      return undefined;
    } catch (error) {
      if (attempt === attempts || signal.aborted) return messageOf(error);
      await pause(firstRest * 4 ** (attempt - 1), signal);
    }
  }
}

async function tell(channel: AlarmChannel, message: AlarmMessage): Promise<void> {
  switch (channel.kind) {
    case 'webhook':
      return (await import('./channels/webhook.js')).postAlarm(
        channel.url,
        channel.secret,
        message,
      );
    case 'email':
      return (await import('./channels/email.js')).mailAlarm(channel, message);
    case 'command':
      return (await import('./channels/command.js')).runCommand(channel.words, message);
  }
}
