import { once } from 'node:events';
import { connect } from 'node:net';
import { describe, expect, it, onTestFinished } from 'vitest';
import { openConnections } from '../../src/reach/connections.js';
import { isServedHere } from '../../src/reach/host-map.js';
import { runJson } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { photograph } from '../support/pictures.js';
import { serve } from '../support/server.js';

interface Clocked {
  readonly conditions: { readonly connecting: string };
  readonly requests: readonly {
    readonly url: string;
    readonly status: number;
    readonly failure: string | null;
    readonly phases: Readonly<Record<string, number>>;
  }[];
}

describe('connections', () => {
  // A machine that stands still for a moment makes a true number look wrong: it is asked again.
  it(
    'make each connection to this machine cost a round trip of the line',
    { retry: 2 },
    async () => {
      const picture = await photograph(60, 40).jpeg().toBuffer();
      const { address } = await serve({
        '//kites.test/': {
          body: `<!doctype html><link rel="icon" href="data:,"><img src="/own.jpg">
          <img src="http://pictures.bay.test/a.jpg"><img src="http://gone.test/b.jpg">`,
        },
        '/own.jpg': { type: 'image/jpeg', body: picture },
        '/a.jpg': { type: 'image/jpeg', body: picture },
      });
      const cwd = temporaryFolder();
      const clock = (network: string) =>
        runJson<Clocked>(
          [
            ...['clock', 'http://kites.test/', '--runs', '1', '--no-interactive'],
            ...['--map-host', `kites.test=${address}`, '--map-host', `*.bay.test=${address}`],
            ...['--map-host', 'gone.test=127.0.0.1:1', '--network', network],
          ],
          { cwd },
        );
      const connects = ({ requests }: Clocked) =>
        Object.fromEntries(requests.map(({ url, phases }) => [url, phases['connect']!]));
      const shaped = await clock('slow-mobile');
      expect(shaped.conditions.connecting).toBe('shaped');
      const found = connects(shaped);
      for (const url of ['http://kites.test/', 'http://pictures.bay.test/a.jpg']) {
        // The browser may begin to connect a moment before it asks.
        expect(found[url]).toBeGreaterThanOrEqual(280);
        expect(found[url]).toBeLessThan(520);
      }
      // A second request of a host goes over the connection that stands.
      expect(found['http://kites.test/own.jpg']).toBe(0);
      const lost = shaped.requests.find(({ url }) => url === 'http://gone.test/b.jpg')!;
      expect([lost.status, lost.failure]).toEqual([0, expect.stringMatching(/./)]);
      const plain = await clock('none');
      expect(plain.conditions.connecting).toBe('real');
      expect(connects(plain)['http://kites.test/']).toBeLessThan(200);
    },
  );

  it('know what comes from this machine', () => {
    const hosts = { 'a.test': '127.0.0.1:80', '*.b.test': '[::1]:81', 'c.test': '192.0.2.7' };
    const here = (url: string) => isServedHere(url, hosts);
    expect(
      ['a.test', 'x.b.test', 'localhost:8080', 'kites.localhost', '127.0.0.2'].map((host) =>
        here(`http://${host}/`),
      ),
    ).toEqual([true, true, true, true, true]);
    expect(
      ['c.test', 'b.test', 'd.test', '192.0.2.7', 'localhost.test'].map((host) =>
        here(`http://${host}/`),
      ),
    ).toEqual([false, false, false, false, false]);
  });

  it('refuse what is no connection, and close when they are told to', async () => {
    const connections = await openConnections(5, (host, port) => ({ host, port }));
    const ask = async (...bytes: readonly number[]) => {
      const socket = connect(connections.port, '127.0.0.1');
      onTestFinished(() => void socket.destroy());
      const got: Buffer[] = [];
      socket.on('data', (chunk: Buffer) => got.push(chunk));
      socket.on('error', () => {});
      socket.write(Buffer.from(bytes));
      await once(socket, 'close');
      return [...Buffer.concat(got)];
    };
    const hello = [5, 1, 0];
    // To listen (2) is none of its business; port 1 of this machine has nobody.
    expect(await ask(...hello, 5, 2, 0, 1, 127, 0, 0, 1, 0, 80)).toEqual([5, 0]);
    expect((await ask(...hello, 5, 1, 0, 1, 127, 0, 0, 1, 0, 1)).slice(2, 4)).toEqual([5, 5]);
    const idle = connect(connections.port, '127.0.0.1');
    await once(idle, 'connect');
    const gone = once(idle, 'close');
    await connections.close();
    await gone;
  });
});
