import { once } from 'node:events';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { afterEach, expect, it, onTestFinished, vi } from 'vitest';
import {
  browserVariable,
  findBrowser,
  findSurveyBrowser,
} from '../../../dist/src/browser/chromium/find-browser.js';
import { launchBrowser } from '../../../dist/src/browser/chromium/launch.js';
import { Reach } from '../../../dist/src/reach/reach.js';

afterEach(() => vi.unstubAllEnvs());

it.each([
  ['without windows', findSurveyBrowser()],
  ['with windows', findBrowser()],
])('asks for http pages as they stand, with a browser %s', async (_, program) => {
  vi.stubEnv(browserVariable, program);
  const asked: string[] = [];
  const server = createServer((socket) => {
    socket.on('error', () => {});
    socket.once('data', (data) => {
      // A greeting of TLS begins with 22 (RFC 8446, section 5.1).
      asked.push(data[0] === 22 ? 'TLS' : data.toString('latin1').replace(/\r\n[^]*/, ''));
      socket.end('HTTP/1.1 200 OK\r\ncontent-type: text/html\r\nconnection: close\r\n\r\nkites');
    });
  }).listen(0, '127.0.0.1');
  await once(server, 'listening');
  onTestFinished(() => void server.close());
  const { port } = server.address() as AddressInfo;
  // A name as the public has them (RFC 2606): others are taken for machines of the own network.
  const host = 'www.example.com';
  const browser = await launchBrowser(Reach.open({ [host]: `127.0.0.1:${port}` }), {
    oneProcess: true,
  });
  onTestFinished(() => browser.close());
  const page = await browser.newPage();
  await page.goto(`http://${host}/`);
  expect(page.url()).toBe(`http://${host}/`);
  expect(asked).toContain('GET / HTTP/1.1');
  expect(asked).not.toContain('TLS');
});
