// Passing on: from the reader to somebody else, within what the owner allowed, and back again.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { NO_LIMITS } from '@/core/policy/ceiling';
import type { PassOnInput } from '@/contracts/reader';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import type { ReaderActor } from '@/server/services/base/deps';
import { explainAccess } from '@/server/services/policy/explain-access';
import { grantRows } from '@/server/services/access/grant-rows';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { viewPerson } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { passOn } from '@/server/services/access/pass-on';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { present } from '../support/present';

let product: Product;
let document: DocumentId;
let sent: Awaited<ReturnType<typeof dispatch>>;
let mira: ReaderActor;
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
  sent = await dispatch(product, [document], ['mira@yard.example', 'tove@yard.example'], {
    rights: ['read', 'print', 'pass-on'],
    prints: 3,
    conditions: { passOn: { people: 2, domains: ['@yard.example', '@class.example'], steps: 2 } },
  });
  mira = await prove(product, sent.tokenOf('mira@yard.example'), 'mira@yard.example');
});
afterAll(async () => {
  await product.close();
});

const rows = () => grantRows(product.deps, product.ida, { dispatch: sent.id });
const row = async (address: string) => (await rows()).find((each) => each.address === address);
const pass = (by: ReaderActor, over: Partial<PassOnInput> = {}) =>
  passOn(product.deps, by, {
    document,
    address: 'per@yard.example',
    rights: ['read'],
    until: null,
    note: '',
    ...over,
  });
async function opens(address: string) {
  const token = (await row(address))?.link.split('/').at(-1) ?? '';
  return openDocument(product.deps, await prove(product, token, address), { token, document });
}

test('a reader passes on what they hold, or less, and the new one is mailed a link of their own', async () => {
  expect(
    await openDocument(product.deps, mira, { token: sent.tokenOf('mira@yard.example'), document }),
  ).toMatchObject({ passOn: { people: 2, steps: 2 }, passedOn: [] });
  expect(
    await pass(mira, { until: START + 5 * DAY, rights: ['read', 'pass-on'], note: 'Have a look.' }),
  ).toEqual({
    passedOn: [
      {
        address: 'per@yard.example',
        rights: ['read', 'pass-on'],
        until: START + 5 * DAY,
        revoked: false,
      },
    ],
  });
  expect(await row('per@yard.example')).toMatchObject({
    passedOnBy: 'mira@yard.example',
    rights: ['read', 'pass-on'],
    conditions: { passOn: { people: 2, steps: 1 } },
  });
  await deliverMail(product.deps);
  const [mail] = (await readMailroom(product.deps, { address: 'per@yard.example' })).messages;
  expect((await readMessage(product.deps, { id: mail?.id ?? '' })).raw).toMatch(
    /mira@yard\.example of yard\.example has sent you/,
  );
  expect(await opens('per@yard.example')).toMatchObject({
    outcome: 'granted',
    until: START + 5 * DAY,
    rights: { print: { granted: false } },
  });
});

test('nobody passes on more, for longer, to others than are listed, or to more people than were said', async () => {
  const wrong: readonly (readonly [Partial<PassOnInput>, object])[] = [
    [{ rights: ['read', 'copy'] }, { fields: { reason: 'more-rights' } }],
    [{ until: START + 31 * DAY }, { fields: { reason: 'longer' } }],
    [{ address: 'x@other.example' }, { fields: { reason: 'not-listed' } }],
    [{ address: 'mira@yard.example' }, { fields: { reason: 'themselves' } }],
    [{ address: 'tove@yard.example' }, { problem: 'given-already' }],
  ];
  for (const [over, problem] of wrong)
    await expect(
      pass(mira, { address: 'new@class.example', until: START + DAY, ...over }),
    ).rejects.toMatchObject(problem);
  await pass(mira, { address: 'second@class.example', until: START + DAY });
  await expect(
    pass(mira, { address: 'third@class.example', until: START + DAY }),
  ).rejects.toMatchObject({ fields: { reason: 'too-many' } });
  const stranger = await prove(product, sent.tokenOf('mira@yard.example'), 'stranger@yard.example');
  await expect(pass(stranger)).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
});

test('it goes on for so many steps, and no further', async () => {
  const token = (await row('per@yard.example'))?.link.split('/').at(-1) ?? '';
  const per = await prove(product, token, 'per@yard.example');
  await expect(
    pass(per, { address: 'ann@class.example', rights: ['read', 'pass-on'], until: START + DAY }),
  ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  await pass(per, { address: 'ann@class.example', until: START + DAY });
  expect(await opens('ann@class.example')).toMatchObject({ outcome: 'granted' });
});

test('what is narrowed, or ended, above is so below, down the whole chain, and comes back with it', async () => {
  const own = present(await row('mira@yard.example'));
  const { changed } = await changeGrants(product.deps, product.ida, {
    changes: [{ grant: own.id, revision: own.revision, until: START + 2 * 3_600_000 }],
  });
  expect(await opens('ann@class.example')).toMatchObject({
    outcome: 'granted',
    until: START + 2 * 3_600_000,
  });
  await changeGrants(product.deps, product.ida, {
    changes: [{ grant: own.id, revision: present(changed[0]).revision, until: own.until }],
  });
  expect(await revokeGrants(product.deps, product.ida, { grants: [own.id] })).toEqual({
    changed: 4,
  });
  expect(await opens('ann@class.example')).toMatchObject({ outcome: 'refused', reason: 'revoked' });
  expect(await reinstateGrants(product.deps, product.ida, { grants: [own.id] })).toEqual({
    changed: 4,
  });
  expect(await opens('ann@class.example')).toMatchObject({ outcome: 'granted' });
});

test('the right to pass on taken by a ceiling takes what was passed on, and is explained', async () => {
  const { setAt } = await putCeiling(product.deps, product.ida, {
    level: 'document',
    subject: document,
    limits: { ...NO_LIMITS, rights: ['read', 'print'] },
    seen: null,
  });
  expect(await opens('per@yard.example')).toMatchObject({ outcome: 'refused' });
  expect(await opens('mira@yard.example')).toMatchObject({ outcome: 'granted', passOn: null });
  const person = await row('per@yard.example');
  expect(
    (
      await explainAccess(product.deps, product.ida, {
        document,
        recipient: person?.recipientId ?? 'rcp_',
        at: null,
      })
    ).opens,
  ).toBe(false);
  expect(
    (await viewPerson(product.deps, product.ida, { id: person?.recipientId ?? 'rcp_' })).reach,
  ).toMatchObject([{ document, reason: expect.any(String) as string }]);
  await putCeiling(product.deps, product.ida, {
    level: 'document',
    subject: document,
    limits: NO_LIMITS,
    seen: setAt,
  });
  expect(await opens('per@yard.example')).toMatchObject({ outcome: 'granted' });
});

test('devices are counted for each person alone, opens up the chain', async () => {
  const paper = await protect(product, await drawing(1), 'Counted');
  const own = await dispatch(product, [paper], ['mira@yard.example'], {
    rights: ['read', 'pass-on'],
    conditions: { opens: 2, devices: 1, passOn: { people: 1, domains: null, steps: 1 } },
  });
  const token = own.tokenOf('mira@yard.example');
  const giver = await prove(product, token, 'mira@yard.example');
  expect(await openDocument(product.deps, giver, { token, document: paper })).toMatchObject({
    outcome: 'granted',
  });
  await passOn(product.deps, giver, {
    document: paper,
    address: 'olaf@x.example',
    rights: ['read'],
    until: START + DAY,
    note: '',
  });
  const link =
    (await grantRows(product.deps, product.ida, { document: paper }))
      .find(({ address }) => address === 'olaf@x.example')
      ?.link.split('/')
      .at(-1) ?? '';
  expect(
    await openDocument(product.deps, await prove(product, link, 'olaf@x.example'), {
      token: link,
      document: paper,
    }),
  ).toMatchObject({ outcome: 'granted' });
  expect(
    await openDocument(product.deps, await prove(product, link, 'olaf@x.example'), {
      token: link,
      document: paper,
    }),
  ).toMatchObject({ outcome: 'refused', reason: 'too-many-devices' });
});

test('the ledger says who passed on to whom, and holds', async () => {
  expect(
    (
      await verifyLedger(product.deps.db.read, {
        publicKey: product.deps.recorder.signer.publicKey,
      })
    ).problems,
  ).toEqual([]);
});
