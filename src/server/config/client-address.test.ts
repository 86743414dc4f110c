import { describe, expect, test } from 'vitest';
import { addressOf, clientAddress, trustedProxies } from '@/server/config/client-address';

const isTrusted = trustedProxies(['10.0.0.0/8', '2001:db8:1::/48']);
const PROXY = '10.0.0.1';

describe('an entry', () => {
  test.each([
    ['203.0.113.9', '203.0.113.9'],
    ['203.0.113.9:4711', '203.0.113.9'],
    ['[2001:db8::7]:4711', '2001:db8::7'],
    ['[2001:db8::7]', '2001:db8::7'],
    ['2001:db8::7', '2001:db8::7'],
    ['"[2001:db8::7]:4711"', '2001:db8::7'],
    [' ::ffff:203.0.113.9 ', '203.0.113.9'],
    ['unknown', null],
    ['_hidden', null],
    ['', null],
    ['203.0.113', null],
    ['203.0.113.9:x', null],
    ['fe80::1%eth0', 'fe80::1'],
  ])('%s is read as %s', (entry, address) => {
    expect(addressOf(entry)).toBe(address);
  });
});

describe('a client’s address', () => {
  test('is the socket’s, whatever is said, where nobody in front is trusted', () => {
    expect(
      clientAddress(
        '198.51.100.1',
        { 'x-forwarded-for': '203.0.113.9', forwarded: 'for=203.0.113.9' },
        isTrusted,
      ),
    ).toBe('198.51.100.1');
    expect(clientAddress('::ffff:198.51.100.1', {}, isTrusted)).toBe('198.51.100.1');
    expect(clientAddress(PROXY, {}, isTrusted)).toBe(PROXY);
  });

  test.each([
    ['the nearest that is not trusted', '198.51.100.77, 203.0.113.9', '203.0.113.9'],
    ['read past trusted ones', '198.51.100.77, 203.0.113.9, 10.0.0.2', '203.0.113.9'],
    ['read with its port', '198.51.100.77, 203.0.113.9:4711', '203.0.113.9'],
    ['read in brackets', '198.51.100.77, [2001:db8::7]:80', '2001:db8::7'],
    [
      'unknown where the proxy says so, and not what the client wrote',
      '198.51.100.77, unknown',
      'unknown',
    ],
    ['unknown where an entry makes no sense', '198.51.100.77, 203.0.113.9.x', 'unknown'],
    ['unknown where an entry is empty', '198.51.100.77, ', 'unknown'],
  ])('is %s', (_what, header, client) => {
    expect(clientAddress(PROXY, { 'x-forwarded-for': header }, isTrusted)).toBe(client);
  });

  test.each([
    ['for=203.0.113.9;proto=https;by=10.0.0.1', '203.0.113.9'],
    ['for=198.51.100.77, For="[2001:db8::7]:4711";proto=http', '2001:db8::7'],
    ['for=198.51.100.77, for=unknown', 'unknown'],
    ['for=198.51.100.77, proto=http', 'unknown'],
    ['for="203.0.113.9, 198.51.100.1"', 'unknown'],
  ])('is read from Forwarded: %s', (header, client) => {
    expect(clientAddress(PROXY, { forwarded: header }, isTrusted)).toBe(client);
  });

  test('is unknown where two headers say two things: one of them is the client’s own', () => {
    expect(
      clientAddress(
        PROXY,
        { 'x-forwarded-for': '198.51.100.77', forwarded: 'for=203.0.113.9' },
        isTrusted,
      ),
    ).toBe('unknown');
    expect(
      clientAddress(
        PROXY,
        { 'x-forwarded-for': '203.0.113.9', forwarded: 'for=203.0.113.9' },
        isTrusted,
      ),
    ).toBe('203.0.113.9');
  });
});
