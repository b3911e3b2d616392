import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import fc from 'fast-check';
import { describe, expect } from 'vitest';
import { runHere } from '../support/program.js';
import { temporaryFolder } from '../support/folder.js';
import { schemaErrors } from '../support/schemas.js';
import { attack } from './attack.js';

/** What stands where a HAR file should have a number, a text, a time, a list or an object. */
const anything = fc.oneof(
  { weight: 3, arbitrary: fc.double() },
  fc.constantFrom<unknown>(
    null,
    -1,
    0,
    1e308,
    -1e308,
    5e-324,
    2 ** 60,
    '12',
    '1e999',
    '',
    {},
    [],
    true,
  ),
  fc.constantFrom(
    '\u001b[31mred\u001b[0m',
    '\u0000',
    '\u202eevil',
    '=1+1',
    '<script>',
    '| a | b |',
    'a\r\nb',
    'x'.repeat(20_000),
  ),
  fc.string({ unit: 'binary', maxLength: 30 }),
);

const time = fc.oneof(
  fc.date({ noInvalidDate: true }).map((date) => date.toISOString()),
  fc.constantFrom<unknown>(
    '2026-02-30T25:61:00Z',
    '-271821-04-20T00:00:00.000Z',
    'yesterday',
    7,
    null,
    '',
  ),
);

const url = fc.oneof(
  fc.webUrl(),
  fc.constantFrom<unknown>(
    'http://',
    'data:text/html,x',
    '//x',
    'javascript:1',
    'http://\u001b]0;x\u0007/',
    null,
    7,
  ),
);

const entry = fc.record(
  {
    pageref: fc.constantFrom<unknown>('page_1', 'page_2', null, 7),
    startedDateTime: time,
    time: anything,
    request: fc.record(
      {
        method: anything,
        url,
        httpVersion: anything,
        headers: anything,
        headersSize: anything,
        bodySize: anything,
      },
      { requiredKeys: ['url'] },
    ),
    response: fc.record(
      {
        status: anything,
        statusText: anything,
        headers: fc.oneof(anything, fc.array(fc.record({ name: anything, value: anything }))),
        content: fc.record({ size: anything, mimeType: anything, compression: anything }),
        bodySize: anything,
        headersSize: anything,
        redirectURL: url,
        _transferSize: anything,
      },
      { requiredKeys: [] },
    ),
    timings: fc.oneof(
      anything,
      fc.record(
        {
          blocked: anything,
          dns: anything,
          connect: anything,
          ssl: anything,
          send: anything,
          wait: anything,
          receive: anything,
        },
        { requiredKeys: [] },
      ),
    ),
    _priority: anything,
    _initiator: anything,
    serverIPAddress: anything,
  },
  { requiredKeys: ['request'] },
);

const har = fc.record({
  log: fc.record(
    {
      version: anything,
      creator: anything,
      browser: anything,
      pages: fc.oneof(
        anything,
        fc.array(
          fc.record(
            {
              id: fc.constantFrom('page_1', 'page_2'),
              startedDateTime: time,
              title: anything,
              pageTimings: fc.record({
                onLoad: anything,
                onContentLoad: anything,
                _largestContentfulPaint: anything,
              }),
              _conditions: fc.oneof(
                anything,
                fc.record(
                  {
                    network: fc.oneof(
                      anything,
                      fc.record({
                        name: anything,
                        latency: anything,
                        down: anything,
                        up: anything,
                      }),
                    ),
                    view: anything,
                    cpuFactor: anything,
                    browser: anything,
                    cache: anything,
                  },
                  { requiredKeys: [] },
                ),
              ),
            },
            { requiredKeys: ['id'] },
          ),
          { maxLength: 2 },
        ),
      ),
      entries: fc.array(entry, { maxLength: 6 }),
    },
    { requiredKeys: ['entries'] },
  ),
});

/** What no output may hold, whatever went in: no number, and what a terminal obeys. */
const forbidden =
  // eslint-disable-next-line no-control-regex
  /\bNaN\b|\bInfinity\b|undefined|\[object |[\u0000-\u0008\u000b-\u001f\u007f-\u009f\u202a-\u202e]/;

/** Seconds for as many as there is time for; `LYNX_FUZZ=600` looks for so long. */
const seconds = Number(process.env['LYNX_FUZZ'] ?? 0);
const length =
  seconds > 0
    ? {
        numRuns: 1_000_000,
        interruptAfterTimeLimit: seconds * 1000,
        markInterruptAsFailure: false,
      }
    : { numRuns: 150, seed: 7 };

/** One page of a file is one session, several are a set. */
const documentName = (stdout: string) =>
  /"zealous-lynx\.([a-z-]+)\//.exec(stdout)?.[1] ?? 'no document';

/** What was found before. */
const found = [
  // A change of next to nothing is no number of per cent.
  {
    log: {
      pages: [{ id: 'page_1', pageTimings: { onLoad: 5e-324 } }],
      entries: [{ request: { url: 'http://a.aa' } }],
    },
  },
  // Conditions that are none.
  {
    log: {
      pages: [
        {
          id: 'page_1',
          _conditions: { network: { name: 0, latency: '\u001b[31m' }, view: 2 ** 60, cpuFactor: 0 },
        },
      ],
      entries: [{ request: { url: 'http://a.aa' }, response: { content: { size: 5e-324 } } }],
    },
  },
  {
    log: {
      pages: [{ id: 'page_1', pageTimings: { onLoad: '12' } }],
      entries: [{ request: { url: 'http://a.aa' } }],
    },
  },
];

describe('recordings that lie', () => {
  attack(
    'held',
    seconds > 0 ? `made-up HAR files, for ${seconds} s` : '150 made-up HAR files',
    async () => {
      const cwd = temporaryFolder();
      await fc.assert(
        fc.asyncProperty<[object, object]>(har, har, async (one, other) => {
          writeFileSync(join(cwd, 'one.har'), JSON.stringify(one));
          writeFileSync(join(cwd, 'other.har'), JSON.stringify(other));
          const calls = [
            ['clock', '--har', 'one.har', '--csv', 'requests.csv'],
            ['clock', '--har', 'one.har', '--json'],
            ['compare', 'one.har', 'other.har'],
          ];
          for (const call of calls) {
            const { status, stdout, stderr } = await runHere(call, { cwd });
            expect([0, 2, 3], stderr).toContain(status);
            expect(stderr).not.toMatch(/UNEXPECTED/);
            if (status === 0 && call.includes('--json'))
              expect(schemaErrors(documentName(stdout), JSON.parse(stdout))).toEqual([]);
            // Line ends of ours are no characters of theirs.
            expect(`${stdout}${stderr}`.replace(/\r?\n/g, ' ')).not.toMatch(forbidden);
          }
        }),
        { ...length, examples: found.map((one): [object, object] => [one, found.at(-1)!]) },
      );
    },
    seconds + 300,
  );
});
