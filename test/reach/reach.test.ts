import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { insideWords } from '../../src/reach/inside-address.js';
import { Reach, RefusedError } from '../../src/reach/reach.js';

describe('insideWords', () => {
  it.for([
    ['127.0.0.1', 'this machine'],
    ['127.255.255.254', 'this machine'],
    ['0.0.0.0', 'this machine'],
    ['10.1.2.3', 'a private network'],
    ['172.16.0.1', 'a private network'],
    ['172.31.255.255', 'a private network'],
    ['192.168.7.7', 'a private network'],
    ['100.64.0.1', "a provider's own network"],
    ['169.254.169.254', 'a link-local network'],
    ['192.0.2.1', 'a reserved range'],
    ['198.18.0.1', 'a reserved range'],
    ['224.0.0.1', 'a reserved range'],
    ['255.255.255.255', 'a reserved range'],
    ['::1', 'this machine'],
    ['::', 'this machine'],
    ['::ffff:127.0.0.1', 'this machine'],
    ['::ffff:a00:1', 'a private network'],
    ['64:ff9b::7f00:1', 'this machine'],
    ['fe80::1', 'a link-local network'],
    ['fe80::1%eth0', 'a link-local network'],
    ['fd00::1', 'a private network'],
    ['2001:db8::1', 'a reserved range'],
    ['ff02::1', 'a reserved range'],
  ] as const)('says what %s is', ([address, words]) => {
    expect(insideWords(address)).toBe(words);
  });

  it('has nothing to say of public addresses', () => {
    for (const address of [
      '9.9.9.9',
      '172.32.0.1',
      '100.128.0.1',
      '2620:fe::9',
      '64:ff9b::909:909',
    ])
      expect([address, insideWords(address)]).toEqual([address, undefined]);
  });

  it('says of an IPv4 address in IPv6 what it says of it alone', () => {
    const byte = fc.integer({ min: 0, max: 255 });
    fc.assert(
      fc.property(fc.tuple(byte, byte, byte, byte), (bytes) => {
        const four = bytes.join('.');
        expect(insideWords(`::ffff:${four}`)).toBe(insideWords(four));
      }),
    );
  });
});

describe('Reach', () => {
  const refusal = async (reach: Reach, host: string) =>
    reach.placeOf(host, 80).then(
      () => null,
      (error: unknown) => (error instanceof RefusedError ? error.message : 'another error'),
    );

  it('lets pages of mapped hosts go to mapped hosts alone', async () => {
    const hosts = { 'kites.test': '127.0.0.1:81', '*.bay.test': '127.0.0.1:82' };
    const reach = await Reach.of({ starts: ['http://kites.test/'], hosts });
    expect(reach.isGuarded).toBe(true);
    expect(await reach.placeOf('a.bay.test', 443)).toEqual({ host: '127.0.0.1', port: 82 });
    expect(await refusal(reach, '127.0.0.1')).toBe('127.0.0.1 is this machine');
    expect(await refusal(reach, 'localhost')).toMatch(/is this machine/);
    expect(await refusal(reach, '169.254.169.254')).toMatch(/link-local/);
    expect(reach.refusalOf('http://127.0.0.1/x')).toMatch(/--allow-host 127.0.0.1 lets them/);
    expect(reach.refusalOf('http://127.0.0.1:99/x')).toBeUndefined();
  });

  it('lets pages of the inside go where they want, unless public pages are surveyed with them', async () => {
    const inside = await Reach.of({ starts: ['http://127.0.0.1:81/'], hosts: {} });
    expect([inside.isGuarded, inside.inside]).toEqual([false, ['127.0.0.1']]);
    expect(await refusal(inside, '10.0.0.1')).toBeNull();
    const both = await Reach.of({
      starts: ['http://127.0.0.1:81/', 'http://kites.test/'],
      hosts: { 'kites.test': '127.0.0.1:81' },
    });
    expect(await refusal(both, '127.0.0.1')).toBeNull();
    expect(await refusal(both, '10.0.0.1')).toMatch(/private network/);
  });

  it('lets pages use the hosts that a person allows', async () => {
    const reach = await Reach.of({
      starts: ['http://kites.test/'],
      hosts: { 'kites.test': '127.0.0.1:81' },
      allowed: ['10.0.0.1', '*.localhost'],
    });
    expect(await refusal(reach, '10.0.0.1')).toBeNull();
    expect(await refusal(reach, 'images.localhost')).toBeNull();
    expect(await refusal(reach, '10.0.0.2')).toMatch(/private network/);
  });

  it('counts folders as inside without a word', async () => {
    const reach = await Reach.of({
      starts: ['http://site.localhost/'],
      hosts: { 'site.localhost': '127.0.0.1:81' },
      served: new Set(['site.localhost']),
    });
    expect([reach.isGuarded, reach.inside]).toEqual([false, []]);
  });
});
