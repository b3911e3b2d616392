import { createHmac } from 'node:crypto';
import { request as requestPlain } from 'node:http';
import { request as requestSecure } from 'node:https';
import { jsonText } from '../../../output/json/json-text.js';
import { messageDocument, patience } from './message.js';
import type { AlarmMessage } from './message.js';

/**
 * Posts a message as JSON. With a secret it is signed: `Zealous-Lynx-Signature` is the HMAC-SHA256 (RFC 2104) of the value
 * of `Zealous-Lynx-Time` (seconds since 1970), a full stop and the body, as hexadecimal digits.
 *
 * @throws Error in plain words when it was not taken.
 */
export async function postAlarm(
  url: string,
  secret: string | undefined,
  message: AlarmMessage,
): Promise<void> {
  const body = jsonText(messageDocument(message));
  const time = String(Math.floor(Date.now() / 1000));
  const signature =
    secret === undefined
      ? undefined
      : createHmac('sha256', secret).update(`${time}.${body}`).digest('hex');
  const request = url.startsWith('https:') ? requestSecure : requestPlain;
  await new Promise<void>((resolve, reject) => {
    const posted = request(
      url,
      {
        method: 'POST',
        signal: AbortSignal.timeout(patience),
        headers: {
          'content-type': 'application/json',
          'content-length': Buffer.byteLength(body),
          'zealous-lynx-time': time,
          ...(signature !== undefined && { 'zealous-lynx-signature': signature }),
        },
      },
      (response) => {
        const { statusCode = 0 } = response;
        response.resume();
        if (statusCode >= 200 && statusCode < 300) resolve();
        else reject(new Error(`it answered ${statusCode}`));
      },
    );
    posted.on('error', (error) =>
      reject(
        error.name === 'TimeoutError' || error.name === 'AbortError'
          ? new Error(`no answer in ${patience / 1000} s`)
          : error,
      ),
    );
    posted.end(body);
  });
}
