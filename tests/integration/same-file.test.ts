// A file that is protected already: the clear original of a document, and a protected file itself.
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { versions } from '@/server/db/schema/documents';
import type { StaffActor } from '@/server/services/base/deps';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { lookAtUpload } from '@/server/services/documents/look-at-upload';
import { protectDocument, reviseDocument } from '@/server/services/documents/protect-document';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { receivePart } from '@/server/services/documents/receive-part';
import { setWay } from '../support/rules';
import {
  dispatch,
  drawing,
  inPieces,
  protect,
  startProduct,
  type Product,
} from '../support/product';
import { joinStaff } from '../support/staff';

let product: Product;
beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});

/** A drawing whose content no other test brings. */
const unlike = async (what: string): Promise<Uint8Array> =>
  new Uint8Array(Buffer.concat([await drawing(1), Buffer.from(`\n% ${what}`)]));

const upload = async (bytes: Uint8Array, actor: StaffActor = product.ida) => {
  const { id } = await beginUpload(product.deps, actor, {
    fileName: 'a.pdf',
    bytes: bytes.length,
  });
  await receivePart(product.deps, actor, { id, offset: 0 }, inPieces(bytes));
  return id;
};

describe('the clear original of a document', () => {
  test('is recognised by whoever answers for the document, whatever the file is called', async () => {
    const { deps, ida } = product;
    const bytes = await unlike('recognised');
    const name = { title: 'Recognised', reference: 'REC-1' };
    const { id } = await protectDocument(deps, ida, { id: await upload(bytes), ...name });
    const again = await upload(bytes);
    expect((await lookAtUpload(deps, ida, { id: again })).same).toEqual({
      ...name,
      revoked: false,
      older: null,
    });
    const other = { title: 'Other', reference: 'REC-2' };
    await expect(protectDocument(deps, ida, { id: again, ...other })).rejects.toMatchObject({
      problem: 'same-file',
      fields: { title: 'Recognised', same: 'REC-1', older: null },
    });

    const nils = await joinStaff(product, 'sender', 'nils-same');
    const his = await upload(bytes, nils);
    expect((await lookAtUpload(deps, nils, { id: his })).same).toBeNull();
    await revokeDocument(deps, ida, { id });
    expect((await lookAtUpload(deps, ida, { id: again })).same?.revoked).toBe(true);
    await destroyKey(deps, ida, { id, typed: 'REC-1' });
    expect((await lookAtUpload(deps, ida, { id: again })).same).toBeNull();
  });

  test('comes to one document, however many bring it at once, unless another is meant', async () => {
    const bytes = await unlike('at once');
    const uploads: Awaited<ReturnType<typeof upload>>[] = [];
    for (let n = 0; n < 20; n++) uploads.push(await upload(bytes));
    const finish = (n: number, again: boolean) =>
      protectDocument(product.deps, product.ida, {
        id: uploads[n] ?? 'upl_none',
        title: 'At once',
        reference: `AT-ONCE-${String(n)}`,
        again,
      });
    const done = await Promise.allSettled(uploads.map((_id, n) => finish(n, false)));
    expect(done.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    const refused = done.findIndex(({ status }) => status === 'rejected');
    expect(await finish(refused, true)).toHaveProperty('id');
  });

  test('of an older version is said to be that, and one that is damaged here is taken in anew', async () => {
    const { deps, ida } = product;
    const bytes = await unlike('first version');
    const id = await protect(product, bytes);
    const newer = await unlike('second version');
    const { id: upload2 } = await beginUpload(deps, ida, {
      fileName: 'b.pdf',
      bytes: newer.length,
      revises: id,
    });
    await receivePart(deps, ida, { id: upload2, offset: 0 }, inPieces(newer));
    await reviseDocument(deps, ida, { id: upload2 });
    const again = await upload(bytes);
    expect((await lookAtUpload(deps, ida, { id: again })).same?.older).toBe(1);
    expect((await lookAtUpload(deps, ida, { id: await upload(newer) })).same?.older).toBeNull();
    await deps.db.write(async (tx) => {
      await tx.update(versions).set({ damagedAt: 1 }).where(eq(versions.documentId, id));
    });
    expect((await lookAtUpload(deps, ida, { id: again })).same).toBeNull();
  });

  test('differs by its last byte alone', async () => {
    const bytes = await unlike('last byte 1');
    await protect(product, bytes);
    const near = await upload(await unlike('last byte 2'));
    expect((await lookAtUpload(product.deps, product.ida, { id: near })).same).toBeNull();
  });
});

test('a protected file is not protected again', async () => {
  const { deps, ida } = product;
  await setWay(product, 'file', 'allowed');
  const document = await protect(product, await unlike('inside'));
  const { id, grants } = await dispatch(product, [document], ['mira@yard.example']);
  const recipient = grants[0]?.recipientId;
  if (recipient === undefined) throw new Error('nobody was sent it');
  const file = await takeProtectedFile(deps, ida, { id, document, recipient });
  const pieces: Uint8Array[] = [];
  for await (const piece of file.read()) pieces.push(piece);
  const brought = await upload(new Uint8Array(Buffer.concat(pieces)));
  await expect(lookAtUpload(deps, ida, { id: brought })).rejects.toMatchObject({
    name: 'ContentError',
    code: 'PROTECTED_ALREADY',
  });
  await expect(lookAtUpload(deps, ida, { id: brought })).rejects.toMatchObject({
    problem: 'upload-over',
  });
});
