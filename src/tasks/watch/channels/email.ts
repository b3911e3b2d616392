import { createTransport } from 'nodemailer';
import type { AlarmChannel } from './channel.js';
import { messageText, messageTitle, patience } from './message.js';
import type { AlarmMessage } from './message.js';

/** The most characters of a subject. */
const mostOfSubject = 150;

/**
 * Sends a message by SMTP.
 *
 * @throws Error when the server did not take it.
 */
export async function mailAlarm(
  { to, from, server, user, password }: Extract<AlarmChannel, { kind: 'email' }>,
  message: AlarmMessage,
): Promise<void> {
  const { hostname, port, protocol } = new URL(server);
  const transport = createTransport({
    host: hostname.replace(/^\[|\]$/g, ''),
    ...(port && { port: Number(port) }),
    secure: protocol === 'smtps:',
    ...(user !== undefined && { auth: { user, pass: password ?? '' } }),
    connectionTimeout: patience,
    greetingTimeout: patience,
    socketTimeout: patience,
    // A mail is what this program wrote: nothing in it names a file or an address to be fetched.
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  try {
    await transport.sendMail({
      ...{ from, to: [...to], text: messageText(message) },
      subject: messageTitle(message).slice(0, mostOfSubject),
    });
  } finally {
    transport.close();
  }
}
