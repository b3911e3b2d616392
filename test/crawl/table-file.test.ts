import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { readAddressList } from '../../src/crawl/address-list.js';
import { textOf } from '../../src/crawl/table-file.js';
import { temporaryFolder } from '../support/folder.js';

function file(bytes: Buffer): string {
  const path = join(temporaryFolder(), 'list.csv');
  writeFileSync(path, bytes);
  return path;
}

describe('textOf', () => {
  const text = 'url,visits\nhttp://brindlebay.test/drachenfl\u00fcge,7\n';
  const little = Buffer.from(`\uFEFF${text}`, 'utf16le');

  it.each([
    ['UTF-8', Buffer.from(text)],
    ['UTF-8 with a mark', Buffer.from(`\uFEFF${text}`)],
    ['UTF-16 as spreadsheets write it', little],
    ['UTF-16, the other way round', Buffer.from(little).swap16()],
    ['one byte a letter', Buffer.from(text, 'latin1')],
  ])('reads %s', (_, bytes) => {
    expect(textOf(file(bytes))).toBe(text);
    expect(readAddressList(file(bytes))).toEqual([
      { url: 'http://brindlebay.test/drachenfl%C3%BCge', visits: 7 },
    ]);
  });

  it('refuses what is no text, by its name', () => {
    const path = file(Buffer.from([0x89, 0x50, 0, 0xff, 0]));
    expect(() => textOf(path)).toThrow(`${path} is not a text in UTF-8 or UTF-16`);
  });
});
