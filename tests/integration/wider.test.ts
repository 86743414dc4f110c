// Grants that stand for many: live groups and domains, and the grants of their own that people have beneath them.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId, GroupId, RecipientId } from '@/core/base/ids';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { dispatchInput, type DispatchInput } from '@/contracts/dispatch';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import { checkRecipients } from '@/server/services/dispatching/check-recipients';
import { revokeAccess, previewRevoke } from '@/server/services/access/revoke-access';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { mailAgain } from '@/server/services/dispatching/mail-links';
import { explainAccess } from '@/server/services/policy/explain-access';
import { giveTo, viewLacking, viewUnreached } from '@/server/services/dispatching/give-lacking';
import { grantRows } from '@/server/services/access/grant-rows';
import { viewDispatches } from '@/server/services/dispatching/list-dispatches';
import { previewCeiling } from '@/server/services/policy/manage-ceilings';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { changeMembers, putGroup, removeGroup } from '@/server/services/people/manage-groups';
import { takePeopleOut } from '@/server/services/people/exchange-people';
import { blockPerson, listPeople, viewPerson } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { sharedWith } from '@/server/services/reading/shared-with';
import { readMailroom } from '@/server/services/demo/read-mailroom';
import { viewDocument } from '@/server/services/documents/view-document';
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
const ids = new Map<string, RecipientId>();
const idOf = (name: string): RecipientId => ids.get(`${name}@yard.example`) ?? 'rcp_';
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
  const known = await dispatch(
    product,
    [await protect(product, await drawing(1), 'Another')],
    ['ann@yard.example', 'ben@yard.example', 'cas@yard.example'],
  );
  for (const { address, recipientId } of known.grants) ids.set(address, recipientId);
});
afterAll(async () => {
  await product.close();
});

const input = (over: Partial<DispatchInput>): DispatchInput => ({
  documents: [document],
  recipients: [],
  terms: { rights: ['read'], from: null, until: START + 30 * DAY, prints: null },
  subject: 'For all of you',
  note: '',
  watermark: DEFAULT_WATERMARK,
  delivery: 'mail',
  ...over,
});
async function send(over: Partial<DispatchInput>) {
  const { id } = await dispatchDocuments(product.deps, product.ida, input(over));
  const rows = () => grantRows(product.deps, product.ida, { dispatch: id });
  const row = async (address: string) => (await rows()).find((each) => each.address === address);
  const token = async (address: string) => (await row(address))?.link.split('/').at(-1) ?? '';
  return { id, rows, row, token };
}
type Sent = Awaited<ReturnType<typeof send>>;
async function opens(sent: Sent, linkOf: string, address: string) {
  const token = await sent.token(linkOf);
  return openDocument(product.deps, await prove(product, token, address), { token, document });
}
const mailedTo = async (address: string) => {
  await deliverMail(product.deps);
  return (await readMailroom(product.deps, { address })).messages.filter(
    ({ subject }) => subject === 'For all of you',
  ).length;
};

describe('a live group', () => {
  let group: GroupId;
  let sent: Sent;
  beforeAll(async () => {
    ({ id: group } = await putGroup(product.deps, product.ida, { id: null, name: 'Bidders' }));
    await changeMembers(product.deps, product.ida, {
      id: group,
      add: [idOf('ann'), idOf('ben')],
      remove: [],
    });
    sent = await send({ groups: [{ id: group }] });
  });

  test('is given what is sent to it, and each of its people has it for their own and is mailed it', async () => {
    const rows = await sent.rows();
    const whole = rows.find(({ kind }) => kind === 'group');
    expect(
      rows.map(({ name, address, kind, parent }) => [
        kind === 'group' ? name : address,
        kind,
        parent === whole?.id,
      ]),
    ).toEqual([
      ['Bidders', 'group', false],
      ['ann@yard.example', 'person', true],
      ['ben@yard.example', 'person', true],
    ]);
    expect([await mailedTo('ann@yard.example'), await mailedTo('cas@yard.example')]).toEqual([
      1, 0,
    ]);
    expect(await opens(sent, 'ann@yard.example', 'ann@yard.example')).toMatchObject({
      outcome: 'granted',
    });
    expect(
      (await viewDispatches(product.deps, product.ida, { q: '' })).rows.find(
        ({ id }) => id === sent.id,
      ),
    ).toMatchObject({
      people: 2,
      unknown: false,
    });
  });

  test('gives who joins what it was sent, by mail; takes it from who leaves, until they come back', async () => {
    expect(
      await changeMembers(product.deps, product.ida, {
        id: group,
        add: [idOf('cas')],
        remove: [idOf('ben')],
      }),
    ).toEqual({ given: 1, ended: 1 });
    expect(await mailedTo('cas@yard.example')).toBe(1);
    expect(await opens(sent, 'cas@yard.example', 'cas@yard.example')).toMatchObject({
      outcome: 'granted',
    });
    expect(await opens(sent, 'ben@yard.example', 'ben@yard.example')).toMatchObject({
      outcome: 'refused',
      reason: 'revoked',
    });
    expect(
      await changeMembers(product.deps, product.ida, { id: group, add: [idOf('ben')], remove: [] }),
    ).toEqual({ given: 1, ended: 0 });
    expect(await opens(sent, 'ben@yard.example', 'ben@yard.example')).toMatchObject({
      outcome: 'granted',
    });
    expect(await mailedTo('ben@yard.example')).toBe(1);
  });

  test('does not give back what somebody lost alone', async () => {
    await revokeGrants(product.deps, product.ida, {
      grants: [(await sent.row('ben@yard.example'))?.id ?? 'grt_'],
    });
    await changeMembers(product.deps, product.ida, { id: group, add: [], remove: [idOf('ben')] });
    expect(
      await changeMembers(product.deps, product.ida, { id: group, add: [idOf('ben')], remove: [] }),
    ).toEqual({ given: 0, ended: 0 });
    expect((await sent.row('ben@yard.example'))?.revokedAt).not.toBeNull();
  });

  test('changes for all at once, but for who was changed alone, and back', async () => {
    const whole = present((await sent.rows()).find(({ kind }) => kind === 'group'));
    const ann = present(await sent.row('ann@yard.example'));
    await changeGrants(product.deps, product.ida, {
      changes: [{ grant: ann.id, revision: ann.revision, until: START + 5 * DAY }],
    });
    const { changed } = await changeGrants(product.deps, product.ida, {
      changes: [
        {
          grant: whole.id,
          revision: whole.revision,
          until: START + 60 * DAY,
          rights: ['read', 'print'],
        },
      ],
    });
    expect(await sent.row('ann@yard.example')).toMatchObject({ until: START + 5 * DAY });
    expect(await sent.row('cas@yard.example')).toMatchObject({
      until: START + 60 * DAY,
      rights: ['read', 'print'],
    });
    const was = present(changed[0]);
    await changeGrants(product.deps, product.ida, {
      changes: [
        {
          grant: was.grant,
          revision: was.revision,
          until: was.before.until,
          rights: ['read'],
        },
      ],
    });
    expect(await sent.row('cas@yard.example')).toMatchObject({
      until: START + 30 * DAY,
      rights: ['read'],
    });
  });

  test('is revoked with everybody beneath it, and reinstated with exactly those', async () => {
    const whole = (await sent.rows()).find(({ kind }) => kind === 'group')?.id ?? 'grt_';
    product.clock.set(product.clock.now() + 1);
    expect(await revokeGrants(product.deps, product.ida, { grants: [whole] })).toEqual({
      changed: 3,
    });
    expect((await sent.rows()).every(({ revokedAt }) => revokedAt !== null)).toBe(true);
    product.clock.set(product.clock.now() + 1);
    expect(await reinstateGrants(product.deps, product.ida, { grants: [whole] })).toEqual({
      changed: 3,
    });
    expect(
      (await sent.rows())
        .filter(({ revokedAt }) => revokedAt !== null)
        .map(({ address }) => address),
    ).toEqual(['ben@yard.example']);
  });

  test('stays given to whom another group of the same dispatch gives it', async () => {
    const { id: second } = await putGroup(product.deps, product.ida, {
      id: null,
      name: 'Surveyors',
    });
    await changeMembers(product.deps, product.ida, { id: second, add: [idOf('ann')], remove: [] });
    const both = await send({ groups: [{ id: group }, { id: second }] });
    expect(
      (await both.rows()).filter(({ kind }) => kind === 'person').map(({ address }) => address),
    ).toEqual(['ann@yard.example', 'ben@yard.example', 'cas@yard.example']);
    await changeMembers(product.deps, product.ida, { id: group, add: [], remove: [idOf('ann')] });
    expect((await both.row('ann@yard.example'))?.revokedAt).toBeNull();
    await changeMembers(product.deps, product.ida, { id: second, add: [], remove: [idOf('ann')] });
    expect((await both.row('ann@yard.example'))?.revokedAt).not.toBeNull();
  });

  test('is pulled back whole, in every dispatch; done away with, it leaves what its people have', async () => {
    const { id: third } = await putGroup(product.deps, product.ida, { id: null, name: 'Owners' });
    await changeMembers(product.deps, product.ida, { id: third, add: [idOf('ann')], remove: [] });
    const one = await send({ groups: [{ id: third }] });
    expect(
      (await previewRevoke(product.deps, product.ida, { scope: { kind: 'group', group: third } }))
        .grants,
    ).toBe(2);
    const { grants } = await revokeAccess(product.deps, product.ida, {
      scope: { kind: 'group', group: third },
    });
    expect(grants).toHaveLength(2);
    await reinstateGrants(product.deps, product.ida, { grants });
    await removeGroup(product.deps, product.ida, { id: third });
    expect((await one.row('ann@yard.example'))?.revokedAt).toBeNull();
    expect((await one.rows()).find(({ kind }) => kind === 'group')?.revokedAt).not.toBeNull();
  });

  test('is not changed by a sender for whom it would change what others sent', async () => {
    const sender = { ...product.ida, id: 'stf_other' as const, role: 'sender' as const };
    await expect(
      changeMembers(product.deps, sender, { id: group, add: [idOf('ann')], remove: [] }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    expect((await listPeople(product.deps, product.ida, { q: '', group })).total).toBe(2);
  });
});

describe('everyone at a domain', () => {
  let sent: Sent;
  beforeAll(async () => {
    sent = await send({
      domains: [{ domain: '@yard.example' }],
      delivery: 'by-hand',
      terms: {
        rights: ['read'],
        from: null,
        until: START + 30 * DAY,
        prints: null,
        conditions: { opens: 2 },
      },
    });
  });

  test('can open by one link, and nobody elsewhere can; each is a person of their own from then on', async () => {
    const before = (await listPeople(product.deps, product.ida, { q: 'dag@yard.example' })).total;
    const token = await sent.token('@yard.example');
    const dag = await prove(product, token, 'dag@yard.example');
    expect((await sharedWith(product.deps, dag, { token })).documents).toMatchObject([
      { id: document, state: { open: true } },
    ]);
    expect(await openDocument(product.deps, dag, { token, document })).toMatchObject({
      outcome: 'granted',
    });
    expect(await opens(sent, '@yard.example', 'dag@sub.yard.example')).toMatchObject({
      outcome: 'refused',
      reason: 'not-addressed',
    });
    expect([
      before,
      (await listPeople(product.deps, product.ida, { q: 'dag@yard.example' })).total,
    ]).toEqual([0, 1]);
    expect(
      (await sent.rows()).map(({ address, kind, opens: times }) => [address, kind, times]),
    ).toEqual([
      ['@yard.example', 'domain', 0],
      ['dag@yard.example', 'person', 1],
    ]);
    expect(
      (await viewDispatches(product.deps, product.ida, { q: '' })).rows.find(
        ({ id }) => id === sent.id,
      ),
    ).toMatchObject({
      people: 1,
      unknown: true,
    });
  });

  test('is told apart from people where a change is foreseen', async () => {
    const impact = () =>
      previewCeiling(product.deps, product.ida, {
        level: 'document',
        subject: document,
        limits: { ...NO_LIMITS, days: 3 },
        seen: null,
      });
    const people = new Set(
      (await grantRows(product.deps, product.ida, { document }))
        .filter(({ kind, revokedAt }) => kind === 'person' && revokedAt === null)
        .map(({ recipientId }) => recipientId),
    ).size;
    expect(await impact()).toMatchObject({ people, unknown: true, documents: 1 });
    const { grants } = await revokeAccess(product.deps, product.ida, {
      scope: { kind: 'dispatch', dispatch: sent.id },
    });
    expect(await impact()).toMatchObject({ unknown: false });
    await reinstateGrants(product.deps, product.ida, { grants: [...grants] });
  });

  test('is counted for each person alone', async () => {
    expect(await opens(sent, '@yard.example', 'dag@yard.example')).toMatchObject({
      outcome: 'granted',
    });
    expect(await opens(sent, '@yard.example', 'dag@yard.example')).toMatchObject({
      outcome: 'refused',
      reason: 'opens-used-up',
    });
    // The window is open still, so only the decision itself says so.
    const [dag] = (await listPeople(product.deps, product.ida, { q: 'dag@yard.example' })).rows;
    expect((await viewPerson(product.deps, product.ida, { id: dag?.id ?? 'rcp_' })).reach).toEqual([
      { document, reason: 'opens-used-up' },
    ]);
    expect(await opens(sent, '@yard.example', 'eva@yard.example')).toMatchObject({
      outcome: 'granted',
    });
  });

  test('is revoked for one alone, who does not come in by the others', async () => {
    await revokeGrants(product.deps, product.ida, {
      grants: [(await sent.row('eva@yard.example'))?.id ?? 'grt_'],
    });
    expect(await opens(sent, '@yard.example', 'eva@yard.example')).toMatchObject({
      outcome: 'refused',
      reason: 'revoked',
    });
    expect(await opens(sent, '@yard.example', 'fay@yard.example')).toMatchObject({
      outcome: 'granted',
    });
  });

  test('shows with each person as a way in, and counts as held', async () => {
    const { grants } = await viewPerson(product.deps, product.ida, { id: idOf('cas') });
    expect(
      (await viewPerson(product.deps, product.ida, { id: idOf('cas') })).wider.map(
        ({ dispatchId, kind }) => [dispatchId === sent.id, kind],
      ),
    ).toEqual([[true, 'domain']]);
    await revokeGrants(product.deps, product.ida, {
      grants: grants
        .filter((each) => each.documentId === document && each.revokedAt === null)
        .map(({ id }) => id),
    });
    const why = await explainAccess(product.deps, product.ida, {
      document,
      recipient: idOf('cas'),
      at: null,
    });
    expect(why.opens).toBe(true);
    expect((await viewPerson(product.deps, product.ida, { id: idOf('cas') })).reach).toContainEqual(
      { document, reason: null },
    );
    const { reached } = await viewDocument(product.deps, product.ida, { id: document });
    expect(reached.unknown).toBe(true);
    expect(reached.people).toBeGreaterThan(0);
    expect(why.ways.map(({ standing }) => standing)).toContain('live');
    expect(
      (await viewLacking(product.deps, product.ida, { id: idOf('cas'), q: '' })).rows.map(
        ({ id }) => id,
      ),
    ).not.toContain(document);
    expect(
      (await viewUnreached(product.deps, product.ida, { id: document, q: 'cas@' })).rows,
    ).toEqual([]);
  });

  test('is no person: it is not listed, mailed, or found among addresses', async () => {
    expect((await listPeople(product.deps, product.ida, { q: 'Everyone' })).total).toBe(0);
    const [whole] = (await sent.rows()).filter(({ kind }) => kind === 'domain');
    const id = whole?.recipientId ?? 'rcp_';
    await expect(viewPerson(product.deps, product.ida, { id })).rejects.toMatchObject({
      code: 'NOT_FOUND',
    });
    await expect(
      blockPerson(product.deps, product.ida, { id, blocked: true }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
    await expect(
      giveTo(product.deps, product.ida, {
        id: document,
        recipients: [id],
        terms: input({}).terms,
        watermark: [],
      }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
    expect((await takePeopleOut(product.deps, product.ida, { format: 'csv' })).text).not.toContain(
      'Everyone at',
    );
    await expect(
      mailAgain(product.deps, product.ida, {
        id: sent.id,
        recipients: [(await sent.row('@yard.example'))?.recipientId ?? 'rcp_'],
      }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    expect(
      (
        await checkRecipients(product.deps, product.ida, {
          addresses: [],
          domains: ['@Yard.example', '@example.com'],
        })
      ).domains,
    ).toMatchObject([
      { domain: '@yard.example', publicMail: false },
      { domain: '@example.com', publicMail: true },
    ]);
  });

  test('is refused where everybody can have an address, and what is no domain is said', async () => {
    await expect(send({ domains: [{ domain: '@example.com' }] })).rejects.toMatchObject({
      code: 'INVALID',
    });
    expect(dispatchInput.safeParse(input({ domains: [{ domain: 'yard' }] })).success).toBe(false);
    expect(dispatchInput.safeParse(input({})).error?.issues[0]?.message).toBe(
      'add at least one recipient',
    );
    expect(dispatchInput.parse(input({ domains: [{ domain: '@YARD.Example' }] })).domains).toEqual([
      { domain: '@yard.example' },
    ]);
  });
});

test('the ledger holds, and stands for what the grants are', async () => {
  expect(
    (
      await verifyLedger(product.deps.db.read, {
        publicKey: product.deps.recorder.signer.publicKey,
      })
    ).problems,
  ).toEqual([]);
});
