// Access cut at every level: whom it hits is named before, exactly those are hit, and it can be taken back.
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import { eq } from 'drizzle-orm';
import type { Scope } from '@/core/policy/scope';
import type { DocumentId } from '@/core/base/ids';
import { grantsOf } from '@/server/repositories/access/grant-reader';
import { grants } from '@/server/db/schema/access';
import { versions } from '@/server/db/schema/documents';
import { changeGrants } from '@/server/services/access/change-grants';
import { reinstateGrants } from '@/server/services/access/revoke-grants';
import {
  revokeAccess,
  previewRevoke,
  previewRevoking,
} from '@/server/services/access/revoke-access';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { blockPerson, listPeople, viewPerson } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { checkOpen, watchOpen } from '@/server/services/reading/watch-open';
import { renderPage } from '@/server/services/reading/read-pages';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import {
  dispatch,
  drawing,
  filesIn,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { setWay } from '../support/rules';
import { joinStaff } from '../support/staff';

let product: Product;
let first: DocumentId;
let second: DocumentId;
let round = 0;
let mira = '';
let lena = '';
let sent: Awaited<ReturnType<typeof dispatch>>;

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  round++;
  [mira, lena] = [`mira${String(round)}@brackwater.example`, `lena${String(round)}@ferrow.example`];
  [first, second] = [
    await protect(product, await drawing(1)),
    await protect(product, await drawing(1)),
  ];
  sent = await dispatch(product, [first, second], [mira, lena]);
});

const idOf = async (address: string) =>
  (await listPeople(product.deps, product.ida, { q: address })).rows.find(
    (row) => row.address === address,
  )?.id ?? 'rcp_';
const liveGrants = async () =>
  (await product.deps.db.read.select().from(grants).where(eq(grants.dispatchId, sent.id))).filter(
    (grant) => grant.revokedAt === null,
  );
const open = async (address: string, document: DocumentId) =>
  openDocument(product.deps, await prove(product, sent.tokenOf(address), address), {
    token: sent.tokenOf(address),
    document,
  });
const problems = async () =>
  (await verifyLedger(product.deps.db.read, { publicKey: product.deps.recorder.signer.publicKey }))
    .problems;

describe('a cut', () => {
  test.each<[string, () => Promise<Scope>, number, number]>([
    ['of a person', async () => ({ kind: 'person', recipient: await idOf(mira) }), 2, 1],
    [
      'of a person on one document',
      async () => ({ kind: 'person-on-document', recipient: await idOf(mira), document: first }),
      1,
      1,
    ],
    ['of a dispatch', () => Promise.resolve({ kind: 'dispatch', dispatch: sent.id }), 4, 2],
  ])(
    '%s hits whom it said, nobody else, and is taken back whole',
    async (_name, scopeOf, count, people) => {
      const scope = await scopeOf();
      const preview = await previewRevoke(product.deps, product.ida, { scope });
      expect(preview).toMatchObject({
        grants: count,
        beyondPower: 0,
        effect: { printsMade: 0, keptBy: 0, textSentTo: 0, copiedBy: 0, stillReads: [], ofNone: 0 },
      });
      expect(preview.effect.shutOut).toHaveLength(people);
      const { grants: cut } = await revokeAccess(product.deps, product.ida, { scope });
      expect(cut).toHaveLength(count);
      expect(await liveGrants()).toHaveLength(4 - count);
      expect(await previewRevoke(product.deps, product.ida, { scope })).toMatchObject({
        grants: 0,
      });
      await reinstateGrants(product.deps, product.ida, { grants: cut });
      expect(await liveGrants()).toHaveLength(4);
      expect(await problems()).toEqual([]);
    },
  );

  test('of an organisation hits everybody there, and only there', async () => {
    const input = {
      documents: [first],
      recipients: [
        ['k1', 'Kelder Shipworks'],
        ['k2', 'Kelder Shipworks'],
        ['l1', 'Lowtide'],
      ].map(([name = '', organisation = '']) => ({
        address: `${name}.${String(round)}@x.example`,
        name,
        organisation,
      })),
      terms: { rights: ['read' as const], from: null, until: null, prints: null },
      subject: 'x',
      note: '',
      watermark: [],
      delivery: 'mail' as const,
    };
    await dispatchDocuments(product.deps, product.ida, input);
    const scope: Scope = { kind: 'organisation', organisation: 'Kelder Shipworks' };
    expect((await previewRevoke(product.deps, product.ida, { scope })).effect.shutOut).toEqual([
      'k1',
      'k2',
    ]);
    await revokeAccess(product.deps, product.ida, { scope });
    expect(
      (await listPeople(product.deps, product.ida, { q: '' })).rows
        .filter((row) => row.organisation !== '')
        .map((row) => [row.name, row.live]),
    ).toEqual([
      ['k1', 0],
      ['k2', 0],
      ['l1', 1],
    ]);
  });

  test('by a sender leaves what others gave, and says so before', async () => {
    const sender = await joinStaff(product, 'sender', `nils${String(round)}`);
    const theirs = { ...product, ida: sender };
    await dispatch(theirs, [await protect(theirs, await drawing(1))], [mira]);
    const scope: Scope = { kind: 'person', recipient: await idOf(mira) };
    expect(await previewRevoke(product.deps, sender, { scope })).toMatchObject({
      grants: 1,
      beyondPower: 2,
    });
    expect((await revokeAccess(product.deps, sender, { scope })).grants).toHaveLength(1);
    expect(await liveGrants()).toHaveLength(4);
  });
});

describe('what revoking does is told of people, by every way they have', () => {
  const effectOf = async () =>
    (
      await previewRevoke(product.deps, product.ida, {
        scope: { kind: 'dispatch', dispatch: sent.id },
      })
    ).effect;

  test('somebody with another dispatch still reads, is named with it, and is shut out once it is closed', async () => {
    const other = await dispatch(product, [first], [mira]);
    const effect = await effectOf();
    expect(effect.shutOut).toEqual([lena]);
    const [way] = effect.stillReads[0]?.ways ?? [];
    expect(effect.stillReads).toMatchObject([
      { name: mira, document: first, ways: [{ by: 'own', mayClose: true }] },
    ]);
    expect(way?.grant).toBe(other.grants[0]?.id);
    const { grants: cut } = await revokeAccess(product.deps, product.ida, {
      scope: { kind: 'dispatch', dispatch: sent.id },
    });
    // Done, the same question is answered as things are then.
    expect(
      (await previewRevoking(product.deps, product.ida, { grants: cut })).stillReads,
    ).toMatchObject([{ name: mira }]);
    await expect(open(mira, first)).resolves.toMatchObject({ outcome: 'granted' });
    await revokeAccess(product.deps, product.ida, {
      scope: { kind: 'dispatch', dispatch: sent.id },
      also: [way?.grant ?? 'grt_'],
    });
    expect((await previewRevoking(product.deps, product.ida, { grants: cut })).stillReads).toEqual(
      [],
    );
    await expect(open(mira, first)).resolves.toMatchObject({ outcome: 'refused' });
  });

  test('what was revoked before is not revoked again with it, so that undoing leaves it revoked', async () => {
    const other = await dispatch(product, [first], [mira]);
    const also = other.grants.map(({ id }) => id);
    await revokeAccess(product.deps, product.ida, {
      scope: { kind: 'dispatch', dispatch: other.id },
    });
    const { grants: cut } = await revokeAccess(product.deps, product.ida, {
      scope: { kind: 'dispatch', dispatch: sent.id },
      also,
    });
    expect(cut).toHaveLength(4);
    expect(cut).not.toContain(also[0]);
  });

  test('is told to anyone who may revoke it, and to nobody else', async () => {
    const sender = await joinStaff(product, 'sender', `lars${String(round)}`);
    await expect(
      previewRevoking(product.deps, sender, { grants: sent.grants.map(({ id }) => id) }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  });

  test('somebody at a domain that was given it reads along', async () => {
    await sendDocuments(product.deps, product.ida, {
      documents: [second],
      recipients: [],
      domains: [{ domain: '@ferrow.example' }],
      terms: { rights: ['read'], from: null, until: null, prints: null },
      subject: 'all of you',
      note: '',
      watermark: [],
      delivery: 'mail',
    });
    expect((await effectOf()).stillReads).toMatchObject([
      { name: lena, document: second, ways: [{ by: 'domain', name: '@ferrow.example' }] },
    ]);
    const everybody = await grantsOf(product.deps.db.read, { document: second });
    const domain = everybody
      .filter(({ recipient }) => recipient.kind === 'domain')
      .map(({ grant }) => grant.id);
    expect((await previewRevoking(product.deps, product.ida, { grants: domain })).closes).toEqual([
      { kind: 'domain', name: '@ferrow.example' },
    ]);
  });

  test('what has ended shuts nobody out, and is counted apart', async () => {
    const [grant] = sent.grants.filter(({ address }) => address === mira);
    await changeGrants(product.deps, product.ida, {
      changes: sent.grants
        .filter(({ address }) => address === mira)
        .map(({ id, revision }) => ({ grant: id, revision, until: product.clock.now() + 1_000 })),
    });
    product.clock.set(product.clock.now() + 2_000);
    expect(grant?.address).toBe(mira);
    expect(await effectOf()).toMatchObject({ shutOut: [lena], ofNone: 1, stillReads: [] });
  });

  test('and an open link of another dispatch is named', async () => {
    await setWay(product, 'open-link', 'allowed');
    await sendDocuments(product.deps, product.ida, {
      documents: [first],
      recipients: [],
      openLink: {},
      terms: { rights: ['read'], from: null, until: null, prints: null },
      subject: 'for anybody',
      note: '',
      watermark: [],
      delivery: 'by-hand',
    });
    expect((await effectOf()).openLinks).toHaveLength(1);
  });
});

describe('a blocked person', () => {
  test('opens nothing, goes blank while reading, and has everything back once unblocked', async () => {
    const id = await idOf(mira);
    const reader = await prove(product, sent.tokenOf(mira), mira);
    const result = await openDocument(product.deps, reader, {
      token: sent.tokenOf(mira),
      document: first,
    });
    if (result.outcome === 'refused') throw new Error(result.reason);
    const heard = new Promise<void>((resolve) => {
      void watchOpen(product.deps, reader, { licence: result.licence }, resolve);
    });
    await new Promise((resolve) => {
      setTimeout(resolve, 600);
    });
    await blockPerson(product.deps, product.ida, { id, blocked: true });
    await heard;
    await expect(
      checkOpen(product.deps, reader, { licence: result.licence }),
    ).resolves.toMatchObject({ outcome: 'refused', reason: 'recipient-blocked' });
    expect(await viewPerson(product.deps, product.ida, { id })).toMatchObject({
      blocked: true,
      live: 0,
    });
    await blockPerson(product.deps, product.ida, { id, blocked: false });
    await expect(
      checkOpen(product.deps, reader, { licence: result.licence }),
    ).resolves.toMatchObject({ outcome: 'granted' });
  });
});

describe('a destroyed key', () => {
  test('needs the reference typed, and then opens for nobody, open readers included', async () => {
    const reader = await prove(product, sent.tokenOf(lena), lena);
    const result = await openDocument(product.deps, reader, {
      token: sent.tokenOf(lena),
      document: first,
    });
    if (result.outcome === 'refused') throw new Error(result.reason);
    const [version] = await product.deps.db.read
      .select()
      .from(versions)
      .where(eq(versions.documentId, first));
    const wrapped = version?.wrappedKey ?? Buffer.alloc(0);
    expect(wrapped.length).toBeGreaterThan(16);
    await expect(
      destroyKey(product.deps, product.ida, { id: first, typed: 'something else' }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    await destroyKey(product.deps, product.ida, { id: first, typed: result.reference });
    await expect(
      renderPage(product.deps, reader, { licence: result.licence, page: 1, width: 800 }),
    ).resolves.toMatchObject({ outcome: 'refused', reason: 'key-destroyed' });
    await expect(open(mira, first)).resolves.toMatchObject({
      outcome: 'refused',
      reason: 'key-destroyed',
    });
    await expect(open(mira, second)).resolves.toMatchObject({ outcome: 'granted' });
    await expect(
      destroyKey(product.deps, product.ida, { id: first, typed: result.reference }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    // The wrapped key is gone from every file, not only from the table.
    expect(filesIn(product.folder).filter((file) => readFileSync(file).includes(wrapped))).toEqual(
      [],
    );
    expect(await problems()).toEqual([]);
  });
});
