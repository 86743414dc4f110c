// Somebody with several addresses, and somebody who has left and whose work another one takes over.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { revokeAccess, previewRevoke } from '@/server/services/access/revoke-access';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { grantRows } from '@/server/services/access/grant-rows';
import { changeMembers, putGroup } from '@/server/services/people/manage-groups';
import { blockPerson, viewPerson } from '@/server/services/people/manage-people';
import { markLeft } from '@/server/services/people/mark-left';
import { openDocument } from '@/server/services/reading/open-document';
import { readMailroom } from '@/server/services/demo/read-mailroom';
import { addAddress, dropAddress } from '@/server/services/people/same-person';
import { dispatch, drawing, protect, prove, startProduct, type Product } from '../support/product';

let product: Product;
let document: DocumentId;
let sent: Awaited<ReturnType<typeof dispatch>>;
const ids = new Map<string, RecipientId>();
const idOf = (address: string): RecipientId => ids.get(address) ?? 'rcp_';
const [work, home, third, per] = [
  'ivo@yard.example',
  'ivo.senn@home.example',
  'ivo@club.example',
  'per@yard.example',
] as const;
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
  sent = await dispatch(product, [document], [work, home, third, per], {
    rights: ['read', 'print'],
    prints: 3,
  });
  for (const { address, recipientId } of sent.grants) ids.set(address, recipientId);
});
afterAll(async () => {
  await product.close();
});
const view = (address: string) => viewPerson(product.deps, product.ida, { id: idOf(address) });
const opens = async (address: string) =>
  openDocument(product.deps, await prove(product, sent.tokenOf(address), address), {
    token: sent.tokenOf(address),
    document,
  });

describe('several addresses of a person', () => {
  test('are shown with each, whichever they were joined to', async () => {
    await addAddress(product.deps, product.ida, { id: idOf(work), address: home });
    await addAddress(product.deps, product.ida, { id: idOf(home), address: third });
    for (const [own, others] of [
      [work, [home, third]],
      [home, [third, work]],
      [third, [home, work]],
    ] as const)
      expect((await view(own)).others.map(({ address }) => address)).toEqual([...others].sort());
    expect((await view(per)).others).toEqual([]);
  });

  test('are revoked and blocked together, and let in together', async () => {
    expect(
      await previewRevoke(product.deps, product.ida, {
        scope: { kind: 'person', recipient: idOf(home) },
      }),
    ).toMatchObject({ grants: 3 });
    await blockPerson(product.deps, product.ida, { id: idOf(third), blocked: true });
    expect(await opens(work)).toMatchObject({ outcome: 'refused', reason: 'recipient-blocked' });
    expect(await opens(per)).toMatchObject({ outcome: 'granted' });
    await blockPerson(product.deps, product.ida, { id: idOf(work), blocked: false });
    expect(await opens(third)).toMatchObject({ outcome: 'granted' });
  });

  test('stay together where the one they were gathered under is somebody else’s', async () => {
    await dropAddress(product.deps, product.ida, { id: idOf(work) });
    expect((await view(work)).others).toEqual([]);
    expect((await view(home)).others.map(({ address }) => address)).toEqual([third]);
    expect(
      (
        await revokeAccess(product.deps, product.ida, {
          scope: { kind: 'person', recipient: idOf(work) },
        })
      ).grants,
    ).toHaveLength(1);
    expect((await view(home)).reach).toEqual([{ document, reason: null }]);
  });

  test('are not joined where that would let somebody in, or says nothing new', async () => {
    await blockPerson(product.deps, product.ida, { id: idOf(work), blocked: true });
    await expect(
      addAddress(product.deps, product.ida, { id: idOf(home), address: work }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await expect(
      addAddress(product.deps, product.ida, { id: idOf(home), address: third }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await expect(
      addAddress(product.deps, product.ida, { id: idOf(home), address: 'nobody@x.example' }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });
});

describe('who has left', () => {
  const heir = 'tomas@yard.example';

  test('is shut out by each address and of every group; the successor has the same, by a mail', async () => {
    const { id: group } = await putGroup(product.deps, product.ida, { id: null, name: 'Bidders' });
    await changeMembers(product.deps, product.ida, { id: group, add: [idOf(home)], remove: [] });
    expect(await markLeft(product.deps, product.ida, { id: idOf(third), successor: heir })).toEqual(
      { given: 1, groups: 1 },
    );
    for (const address of [home, third])
      expect(await opens(address)).toMatchObject({
        outcome: 'refused',
        reason: 'recipient-blocked',
      });
    expect(await view(home)).toMatchObject({
      inGroups: [],
      leftAt: product.clock.now(),
      blocked: true,
    });
    const theirs = (await grantRows(product.deps, product.ida, { dispatch: sent.id })).find(
      ({ address }) => address === heir,
    );
    expect(theirs).toMatchObject({
      rights: ['read', 'print'],
      prints: 3,
      until: sent.grants[0]?.until,
      parent: null,
    });
    await deliverMail(product.deps);
    expect((await readMailroom(product.deps, { address: heir })).messages).toHaveLength(1);
    const token = theirs?.link.split('/').at(-1) ?? '';
    expect(
      await openDocument(product.deps, await prove(product, token, heir), { token, document }),
    ).toMatchObject({ outcome: 'granted' });
  });

  test('is back by being unblocked, and is not said to have left twice', async () => {
    await expect(
      markLeft(product.deps, product.ida, { id: idOf(home), successor: null }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await blockPerson(product.deps, product.ida, { id: idOf(home), blocked: false });
    expect(await view(third)).toMatchObject({ leftAt: null, blocked: false });
    expect(await opens(home)).toMatchObject({ outcome: 'granted' });
  });

  test('is not taken over from by themselves or by somebody who is blocked; then nothing is changed', async () => {
    await expect(
      markLeft(product.deps, product.ida, { id: idOf(per), successor: per }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    await expect(
      markLeft(product.deps, product.ida, { id: idOf(per), successor: work }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    expect(await view(per)).toMatchObject({ leftAt: null, blocked: false });
  });
});
