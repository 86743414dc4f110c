import { createHash, webcrypto } from 'node:crypto';
import { beforeAll, describe, expect, test } from 'vitest';
import { createProofsUsed, isDeviceKey, isProven } from '@/server/identity/device-proof';

const NOW = 1_800_000_000_000;
const algorithm = { name: 'ECDSA', namedCurve: 'P-256' } as const;
let pair: webcrypto.CryptoKeyPair;
let publicKey: JsonWebKey;
beforeAll(async () => {
  pair = await webcrypto.subtle.generateKey(algorithm, true, ['sign', 'verify']);
  publicKey = await webcrypto.subtle.exportKey('jwk', pair.publicKey);
});

type Signed = { method?: string; path?: string; body?: string; time?: number; nonce?: string };
async function proof({
  method = 'POST',
  path = '/api/v1/reader/open',
  body = '{"a":1}',
  time = NOW,
  nonce = 'a-number-used-once',
}: Signed = {}): Promise<string> {
  const text = [
    `${method} ${path}`,
    String(time),
    nonce,
    createHash('sha256').update(body).digest('base64url'),
  ].join('\n');
  const signature = await webcrypto.subtle.sign(
    { name: 'ECDSA', hash: 'SHA-256' },
    pair.privateKey,
    Buffer.from(text),
  );
  return `${String(time)} ${nonce} ${Buffer.from(signature).toString('base64url')}`;
}
const asked = (header: string, path = '/api/v1/reader/open', method = 'POST') =>
  new Request(`http://localhost${path}`, { method, headers: { 'device-proof': header } });
const check = (
  header: string,
  over: { body?: string; path?: string; method?: string; key?: JsonWebKey } = {},
  used = createProofsUsed(),
) =>
  isProven(
    asked(header, over.path, over.method),
    over.body ?? '{"a":1}',
    { id: 'dev_1', publicKey: over.key ?? publicKey },
    used,
    NOW,
  );

describe('a signed request', () => {
  test('holds once, and not for another path, method, body or time', async () => {
    const used = createProofsUsed();
    const header = await proof();
    expect(check(header, {}, used)).toBe(true);
    expect(check(header, {}, used)).toBe(false);
    expect(check(header, { path: '/api/v1/reader/leave' })).toBe(false);
    expect(check(header, { method: 'PUT' })).toBe(false);
    expect(check(header, { body: '{"a":2}' })).toBe(false);
    expect(check(await proof({ time: NOW - 121_000 }))).toBe(false);
    expect(check(await proof({ time: NOW + 121_000 }))).toBe(false);
    expect(check(header.replace(String(NOW), String(NOW + 1)))).toBe(false);
  });

  test('written anew from a copied one, with the other root of the signature, does not hold again', async () => {
    const used = createProofsUsed();
    const header = await proof();
    const [time = '', nonce = '', signature = ''] = header.split(' ');
    const bytes = Buffer.from(signature, 'base64url');
    const order = BigInt('0xffffffff00000000ffffffffffffffffbce6faada7179e84f3b9cac2fc632551');
    const other = order - BigInt(`0x${bytes.subarray(32).toString('hex')}`);
    const root = Buffer.from(other.toString(16).padStart(64, '0'), 'hex');
    const twin = `${time} ${nonce} ${Buffer.concat([bytes.subarray(0, 32), root]).toString('base64url')}`;
    expect(check(header, {}, used)).toBe(true);
    expect(check(twin, {}, used)).toBe(false);
  });

  test.each([
    [''],
    ['x'],
    ['1 2 3'],
    [`${String(NOW)} short AAAA`],
    [`${String(NOW)} a-number-used-once !!!`],
    [`NaN a-number-used-once AAAA`],
  ])('that says %j is not proven, and breaks nothing', (header) => {
    expect(check(header)).toBe(false);
  });

  test('a key that is no point on its curve is none', async () => {
    const wrong = { ...publicKey, x: publicKey.y ?? '', y: publicKey.x ?? '' };
    expect(isDeviceKey(publicKey)).toBe(true);
    expect(isDeviceKey(wrong)).toBe(false);
    expect(isDeviceKey({ kty: 'EC', crv: 'P-256', x: '', y: '' })).toBe(false);
    expect(check(await proof(), { key: wrong })).toBe(false);
  });
});
