import fc from 'fast-check';
import { SignJWT, importJWK } from 'jose';
import { base64urlnopad } from '@scure/base';
import { beforeAll, describe, expect, test } from 'vitest';
import { isAppError } from '@/core/base/errors';
import { HOUR } from '@/core/base/time';
import { licenceSigner, type Licence } from '@/core/licence/licence';
import { readOwnLicence } from '@/core/licence/own-licence';
import { RIGHTS } from '@/core/policy/rights';
import { newLayer } from '@/core/watermark/layers';
import { newSigningKey } from '@/server/vault/vault';

const ISSUER = 'https://embargo.tern-quill.example';
const NOW = 1_800_000_000_000;
/** `LICENCES=1000000 npx vitest run src/core/licence` tries a million. */
const TRIES = Number(process.env['LICENCES'] ?? 3_000);

const { publicKey, privateKey } = newSigningKey();
const licence: Licence = {
  id: 'lic_00000000000000000001',
  grant: 'grt_00000000000000000001',
  document: 'doc_00000000000000000001',
  version: 'ver_00000000000000000001',
  recipient: 'rcp_00000000000000000001',
  device: 'dev_00000000000000000001',
  rights: ['read', 'copy'],
  watermark: [newLayer('tiled', 'mira@brackwater.example · 田中')],
  issuedAt: NOW,
  expiresAt: NOW + HOUR,
  own: { keyThumbprint: 'A'.repeat(43), offlineUntil: NOW + HOUR, readingAids: false },
};
let statement = '';
let sign: (claims: Record<string, unknown>) => Promise<string>;

beforeAll(async () => {
  statement = await (await licenceSigner(publicKey, privateKey, ISSUER))(licence);
  const key = await importJWK(
    {
      kty: 'OKP',
      crv: 'Ed25519',
      x: base64urlnopad.encode(publicKey),
      d: base64urlnopad.encode(privateKey),
    },
    'EdDSA',
  );
  sign = (claims) =>
    new SignJWT(claims).setProtectedHeader({ alg: 'EdDSA', typ: 'embargo-licence+jwt' }).sign(key);
});

const read = (text: string, at = NOW) => readOwnLicence(text, publicKey, ISSUER, at);
/** What came of it: a licence, or the code of an error of ours; anything else is thrown on. */
async function outcome(text: string): Promise<string> {
  try {
    return (await read(text)).id;
  } catch (error) {
    if (isAppError(error)) return error.code;
    throw error;
  }
}

describe('a licence for a person’s own machine', () => {
  test('is read as it was signed', async () => {
    expect(await read(statement)).toEqual({
      id: licence.id,
      document: licence.document,
      version: licence.version,
      device: licence.device,
      rights: ['read', 'copy'],
      watermark: licence.watermark,
      keyThumbprint: 'A'.repeat(43),
      issuedAt: NOW,
      expiresAt: NOW + HOUR,
      offlineUntil: NOW + HOUR,
      readingAids: false,
    });
  });

  test('is over when its time is, and is none for anybody else’s key', async () => {
    await expect(read(statement, NOW + HOUR)).rejects.toMatchObject({ code: 'BAD_LICENCE' });
    const other = readOwnLicence(statement, newSigningKey().publicKey, ISSUER, NOW);
    await expect(other).rejects.toMatchObject({ code: 'BAD_LICENCE' });
  });

  test('of hosted pages alone is none', async () => {
    const { own: _own, ...hosted } = licence;
    const signed = await (await licenceSigner(publicKey, privateKey, ISSUER))(hosted);
    expect(await outcome(signed)).toBe('BAD_LICENCE');
  });

  test('that is altered anywhere is refused, whatever is altered', { timeout: 1e9 }, async () => {
    const altered = fc
      .tuple(fc.nat(statement.length - 1), fc.integer({ min: 0, max: 0x10ffff }), fc.nat(3))
      .map(([at, code, cut]) => {
        const put = cut === 0 ? '' : String.fromCodePoint(code);
        return `${statement.slice(0, at)}${put}${statement.slice(at + (cut === 1 ? 0 : 1))}`;
      })
      .filter((text) => text !== statement);
    const original = await read(statement);
    const anything = fc.oneof(altered, fc.string(), fc.string({ maxLength: 200_000 }));
    await fc.assert(
      fc.asyncProperty(anything, async (text) => {
        // The last letter of base64 may carry bits that are not looked at: then nothing was altered.
        const found = await read(text).catch((error: unknown) => {
          if (isAppError(error) && error.code === 'BAD_LICENCE') return original;
          throw error;
        });
        expect(found).toEqual(original);
      }),
      { numRuns: TRIES },
    );
  });

  test(
    'with whatever claims, though signed, is read whole or not at all',
    { timeout: 1e9 },
    async () => {
      const right = JSON.parse(
        Buffer.from(statement.split('.')[1] ?? '', 'base64url').toString(),
      ) as Record<string, unknown>;
      const names = Object.keys(right);
      const claims = fc
        .dictionary(fc.constantFrom(...names), fc.jsonValue({ maxDepth: 3 }), { maxKeys: 3 })
        .map((wrong) => ({ ...right, ...wrong }));
      await fc.assert(
        fc.asyncProperty(claims, async (given) => {
          const found = await read(await sign(given)).catch((error: unknown) => {
            if (isAppError(error)) return null;
            throw error;
          });
          if (found === null) return;
          expect(found.rights.every((each) => RIGHTS.includes(each))).toBe(true);
          expect(found.expiresAt).toBeGreaterThan(NOW);
          expect(found.watermark.every(({ line }) => typeof line === 'string')).toBe(true);
        }),
        { numRuns: Math.ceil(TRIES / 3) },
      );
    },
  );
});
