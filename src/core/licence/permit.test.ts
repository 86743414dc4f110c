import fc from 'fast-check';
import { beforeAll, describe, expect, test } from 'vitest';
import { isAppError } from '@/core/base/errors';
import { MINUTE } from '@/core/base/time';
import { licenceSigner } from '@/core/licence/licence';
import { permitSigner, readPermit, type Permit } from '@/core/licence/permit';
import { newLayer } from '@/core/watermark/layers';
import { newSigningKey } from '@/server/vault/vault';

const NAME = 'https://embargo.tern-quill.example';
const NOW = 1_800_000_000_000;
const { publicKey, privateKey } = newSigningKey();
const permit: Permit = {
  licence: 'lic_00000000000000000001',
  recipient: 'rcp_00000000000000000001',
  issuedAt: NOW,
  expiresAt: NOW + 10 * MINUTE,
  watermark: [newLayer('banner', 'copy 3 · mira@brackwater.example')],
  take: { kind: 'print', from: 2, to: 5 },
};
const { watermark, take } = permit;
let statement = '';

beforeAll(async () => {
  statement = await (await permitSigner(publicKey, privateKey, NAME))(permit);
});

const read = (text: string, of: string = permit.licence, at = NOW) =>
  readPermit(text, { name: NAME, publicKey }, of, at);

describe('a permit to take something out', () => {
  test('is read as it was signed, for its licence and time alone', async () => {
    expect(await read(statement)).toEqual({ watermark, take });
    for (const other of [
      read(statement, 'lic_00000000000000000002'),
      read(statement, permit.licence, permit.expiresAt),
      readPermit(
        statement,
        { name: NAME, publicKey: newSigningKey().publicKey },
        permit.licence,
        NOW,
      ),
      readPermit(statement, { name: 'https://other.example', publicKey }, permit.licence, NOW),
    ])
      await expect(other).rejects.toMatchObject({ code: 'BAD_LICENCE' });
  });

  test('is not what a licence is, though the same key signed it', async () => {
    const licence = await (
      await licenceSigner(publicKey, privateKey, NAME)
    )({
      id: permit.licence,
      grant: 'grt_00000000000000000001',
      document: 'doc_00000000000000000001',
      version: 'ver_00000000000000000001',
      recipient: permit.recipient,
      device: 'dev_00000000000000000001',
      rights: ['read', 'print', 'keep'],
      watermark,
      issuedAt: NOW,
      expiresAt: permit.expiresAt,
    });
    await expect(read(licence)).rejects.toMatchObject({ code: 'BAD_LICENCE' });
  });

  test('says what it is for, or is none', async () => {
    const sign = await permitSigner(publicKey, privateKey, NAME);
    const others: unknown[] = [
      { kind: 'print', from: 0, to: 1 },
      { kind: 'print', from: 1 },
      { kind: 'pass-on' },
      null,
    ];
    for (const other of others) {
      const signed = await sign({ ...permit, take: other as Permit['take'] });
      await expect(read(signed)).rejects.toMatchObject({ code: 'BAD_LICENCE' });
    }
  });

  test('that is altered anywhere is refused', async () => {
    const altered = fc
      .tuple(fc.nat(statement.length - 1), fc.integer({ min: 32, max: 126 }))
      .map(
        ([at, code]) =>
          statement.slice(0, at) + String.fromCharCode(code) + statement.slice(at + 1),
      );
    await fc.assert(
      fc.asyncProperty(fc.oneof(altered, fc.string()), async (text) => {
        // The last letter of base64 may carry bits that are not looked at: then nothing was altered.
        const found = await read(text).catch((error: unknown) => {
          if (isAppError(error) && error.code === 'BAD_LICENCE') return { watermark, take };
          throw error;
        });
        expect(found).toEqual({ watermark, take });
      }),
    );
  });
});
