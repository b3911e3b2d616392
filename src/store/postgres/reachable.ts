import { connect } from 'node:net';
import type pg from 'pg';

/** Milliseconds after which an answer is so late that the server is looked for, and between two looks. */
const late = 10_000;
const between = 5_000;

/** Looks in a row at a server that is not there, before its connection is given up. */
const mostLooks = 2;

/**
 * Waits for an answer as long as the server can be reached. A network that is cut says nothing, and the system would wait for
 * a quarter of an hour.
 *
 * @throws what the answer throws; it fails when the connection is given up
 */
export async function whileReachable<Answer>(
  client: pg.Client,
  answer: Promise<Answer>,
): Promise<Answer> {
  const { host, port } = client;
  let missed = 0;
  let timer: NodeJS.Timeout;
  const look = async () => {
    missed = (await isThere(host, port)) ? 0 : missed + 1;
    if (missed < mostLooks) timer = setTimeout(() => void look(), between);
    else endAtOnce(client);
  };
  // A socket of this machine is never cut.
  if (!host.startsWith('/')) timer = setTimeout(() => void look(), late);
  try {
    return await answer;
  } finally {
    clearTimeout(timer!);
  }
}

function isThere(host: string, port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = connect({ host, port, timeout: between });
    const end = (found: boolean) => {
      socket.destroy();
      resolve(found);
    };
    socket.once('connect', () => end(true));
    socket.once('timeout', () => end(false));
    socket.once('error', () => end(false));
  });
}

/** Takes a connection away under its questions, which fail then; to end it politely would wait for them. */
function endAtOnce(client: pg.Client): void {
  const { connection } = client as unknown as {
    readonly connection: { readonly stream: { destroy(): void } };
  };
  connection.stream.destroy();
}
