import { newLayer } from '@/core/watermark/layers';
import { expect, test } from 'vitest';
import { licenceSigner, verifyLicence, type Licence } from '@/core/licence/licence';
import { newSigningKey } from '@/server/vault/vault';

const ISSUER = 'https://embargo.tern-quill.example';
const licence: Licence = {
  id: 'lic_1',
  grant: 'grt_1',
  document: 'doc_1',
  version: 'ver_1',
  recipient: 'rcp_1',
  device: 'dev_1',
  rights: ['read'],
  watermark: [newLayer('tiled', 'mira@brackwater.example')],
  issuedAt: 1_000_000,
  expiresAt: 2_000_000,
};

test('a licence holds until its end, for its issuer and key alone', async () => {
  const { publicKey, privateKey } = newSigningKey();
  const statement = await (await licenceSigner(publicKey, privateKey, ISSUER))(licence);
  await expect(verifyLicence(statement, publicKey, ISSUER, 1_500_000)).resolves.toMatchObject({
    id: 'lic_1',
    recipient: 'rcp_1',
    claims: { rights: ['read'], grant: 'grt_1' },
  });
  await expect(verifyLicence(statement, publicKey, ISSUER, 2_000_000)).rejects.toMatchObject({
    code: 'BAD_LICENCE',
  });
  await expect(
    verifyLicence(statement, publicKey, 'https://other.example', 1_500_000),
  ).rejects.toMatchObject({ code: 'BAD_LICENCE' });
  await expect(
    verifyLicence(statement, newSigningKey().publicKey, ISSUER, 1_500_000),
  ).rejects.toMatchObject({ code: 'BAD_LICENCE' });
  const [header, body, signature] = statement.split('.');
  const forged = [
    header,
    Buffer.from(
      JSON.stringify({
        ...(JSON.parse(Buffer.from(body ?? '', 'base64url').toString()) as object),
        rights: ['read', 'keep'],
      }),
    ).toString('base64url'),
    signature,
  ].join('.');
  await expect(verifyLicence(forged, publicKey, ISSUER, 1_500_000)).rejects.toMatchObject({
    code: 'BAD_LICENCE',
  });
});
