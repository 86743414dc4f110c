// Ways of handing out: what is forbidden, what waits for a second person, links that ask for no
// proof, and what goes out in the clear.
import { DAY, MINUTE } from '@/core/base/time';
import { inArray } from 'drizzle-orm';
import { simpleParser } from 'mailparser';
import { afterAll, beforeAll, beforeEach, describe, expect, onTestFinished, test } from 'vitest';
import { newId, type DocumentId } from '@/core/base/ids';
import type { Leave, Way } from '@/core/policy/rules';
import { DEFAULT_WATERMARK, newLayer } from '@/core/watermark/layers';
import type { DispatchInput } from '@/contracts/dispatch';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { answerConsent, listConsents } from '@/server/services/consents/answer-consents';
import { EMPTY_SHEET } from '@/core/compose/sheet';
import { keepDraftInput } from '@/contracts/draft';
import { draftsOf } from '@/server/repositories/dispatching/draft-repository';
import { senderLimitsInput } from '@/contracts/staff';
import { changeGrants } from '@/server/services/access/change-grants';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { giveTo } from '@/server/services/dispatching/give-lacking';
import { changeSenderLimits, viewOwnLimits } from '@/server/services/policy/sender-limits';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import type { ReaderActor, StaffActor } from '@/server/services/base/deps';
import { addPeople } from '@/server/services/dispatching/add-people';
import { mailAgain } from '@/server/services/dispatching/mail-links';
import { markLeft } from '@/server/services/people/mark-left';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { listPeople } from '@/server/services/people/manage-people';
import { NO_LIMITS, type Limits } from '@/core/policy/ceiling';
import { listCeilings } from '@/server/repositories/policy/ceiling-repository';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { putMarking } from '@/server/services/filing/manage-filing';
import { putRule, viewRules } from '@/server/services/policy/manage-rules';
import { openDocument } from '@/server/services/reading/open-document';
import { sharedWith } from '@/server/services/reading/shared-with';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { hastenHeld, sendHeld, viewHeld } from '@/server/services/dispatching/hold-dispatch';
import { keepDraft } from '@/server/services/dispatching/keep-draft';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { proofAsked, visitLink } from '@/server/services/reading/visit-link';
import { findDeviceByToken } from '@/server/repositories/reading/reader-repository';
import { insertStaff } from '@/server/repositories/staff/staff-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import {
  START,
  dispatch,
  drawing,
  newPublicKey,
  protect,
  prove,
  startProduct,
  stranger,
  type Product,
} from '../support/product';
import { setWay } from '../support/rules';

let product: Product;
let document: DocumentId;
let bytes: Uint8Array;
let otto: StaffActor;
let nils: StaffActor;
async function colleague(name: string, role: StaffActor['role']): Promise<StaffActor> {
  const id = newId('staff', product.deps.random);
  const email = `${name.toLowerCase()}@tern-quill.example`;
  await product.deps.db.write((tx) =>
    insertStaff(tx, { id, name, email, role }, product.deps.clock.now() - 30 * DAY),
  );
  return { ...product.ida, id, name, email, role };
}
beforeAll(async () => {
  product = await startProduct();
  bytes = await drawing(1);
  document = await protect(product, bytes, 'Weight list');
  otto = await colleague('Otto', 'administrator');
  nils = await colleague('Nils', 'sender');
});
afterAll(async () => {
  await product.close();
});

const input = (over: Partial<DispatchInput> = {}): DispatchInput => ({
  documents: [document],
  recipients: [{ address: 'mira@x.example', name: '', organisation: '' }],
  terms: { rights: ['read'], from: null, until: START + 1e9, prints: null },
  subject: 'For you',
  note: '',
  watermark: DEFAULT_WATERMARK,
  delivery: 'mail',
  ...over,
});
const decide = (way: Way, leave: Leave, reason = '') => setWay(product, way, leave, reason);
const bodies = async (...actions: string[]) =>
  (
    await product.deps.db.read
      .select({ body: ledgerEntries.body })
      .from(ledgerEntries)
      .where(inArray(ledgerEntries.action, actions))
      .orderBy(ledgerEntries.sequence)
  ).map(({ body }) => body);
const dispatches = async () => (await grantRows(product.deps, product.ida, { document })).length;

describe('a way of handing out', () => {
  test('that is forbidden is refused with who decided so and why, and nothing is sent', async () => {
    await decide('file', 'forbidden', 'drawings stay in the house');
    await expect(
      sendDocuments(product.deps, product.ida, input({ form: 'both' })),
    ).rejects.toMatchObject({
      problem: 'way-forbidden',
      fields: { way: 'file', setBy: 'Ida Roe', reason: 'drawings stay in the house' },
    });
    await expect(
      sendDocuments(product.deps, product.ida, input({ openLink: {} })),
    ).rejects.toMatchObject({
      problem: 'way-forbidden',
      fields: { way: 'open-link', byDefault: true },
    });
    expect(await dispatches()).toBe(0);
    const sent = await dispatch(
      product,
      [await protect(product, bytes, 'By link')],
      ['mira@x.example'],
    );
    const [row] = sent.grants;
    const take = () =>
      takeProtectedFile(product.deps, product.ida, {
        id: sent.id,
        recipient: row?.recipientId ?? 'rcp_',
        document: row?.documentId ?? 'doc_',
      });
    await expect(take()).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await decide('file', 'allowed');
    await expect(take()).resolves.toMatchObject({
      name: expect.stringContaining('.pdf') as string,
    });
  });

  test('is not decided over what somebody else decided meanwhile, and is undone by what it was', async () => {
    const { before, setAt } = await decide('link', 'agreed', 'a look before it leaves');
    await expect(
      putRule(product.deps, product.ida, {
        way: 'link',
        leave: 'forbidden',
        reason: '',
        seen: null,
      }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await putRule(product.deps, product.ida, { way: 'link', ...before, seen: setAt });
    expect((await viewRules(product.deps)).find(({ way }) => way === 'link')).toMatchObject({
      leave: 'allowed',
      setByName: 'Ida Roe',
    });
  });
});

describe('what wants a second person', () => {
  beforeAll(async () => {
    await decide('domain', 'agreed');
  });
  const toDomain = (): DispatchInput =>
    input({ domains: [{ domain: '@yard.example' }], delivery: 'by-hand' });

  test('goes out when somebody else agrees, for the one who asked, and not before', async () => {
    expect(await sendDocuments(product.deps, product.ida, toDomain())).toEqual({
      id: null,
      reference: '',
      held: null,
      waits: true,
    });
    expect(await dispatches()).toBe(0);
    const [waiting] = await listConsents(product.deps, otto);
    expect(waiting).toMatchObject({
      kind: 'send',
      subject: 'For you',
      to: ['mira@x.example', 'everyone at yard.example'],
      askedBy: 'Ida Roe',
      own: false,
    });
    const id = waiting?.id ?? 'cns_';
    await expect(
      answerConsent(product.deps, product.ida, { id, agree: true }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await expect(answerConsent(product.deps, nils, { id, agree: true })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    await expect(
      answerConsent(product.deps, { ...otto, proven: false }, { id, agree: true }),
    ).rejects.toMatchObject({ code: 'PROVE_AGAIN' });
    await answerConsent(product.deps, otto, { id, agree: true });
    expect(
      (await grantRows(product.deps, product.ida, { document })).map(({ kind }) => kind),
    ).toEqual(['domain', 'person']);
    await expect(answerConsent(product.deps, otto, { id, agree: false })).rejects.toMatchObject({
      code: 'CONFLICT',
    });
    expect((await bodies('consent.asked', 'consent.answered', 'dispatch.sent')).slice(-3)).toEqual([
      expect.stringContaining('"kind":"send"'),
      expect.stringContaining('"agreed":true'),
      expect.stringContaining(`"consent":"${id}"`),
    ]);
  });

  /** A moment that the clock can be set to; afterwards it is as it was. */
  const laterOn = (): number => {
    const now = product.deps.clock.now();
    onTestFinished(() => {
      product.clock.set(now);
    });
    return now + DAY;
  };

  test('leaves at the time that was set for it, though they agreed before, and no sooner', async () => {
    const { deps, ida } = product;
    const leavesAt = laterOn();
    await sendDocuments(deps, ida, { ...toDomain(), leavesAt });
    const [asked] = await listConsents(deps, otto);
    expect(asked?.leavesAt).toBe(leavesAt);
    await answerConsent(deps, otto, { id: asked?.id ?? 'cns_', agree: true });
    const given = () => grantRows(deps, ida, { document });
    const before = (await given()).length;
    const [held] = await viewHeld(deps, ida);
    expect(held?.leavesAt).toBe(leavesAt);
    await expect(hastenHeld(deps, ida, { id: held?.id ?? 'hld_' })).rejects.toMatchObject({
      problem: 'approved-for-then',
    });
    await sendHeld(deps);
    expect((await given()).length).toBe(before);
    product.clock.set(leavesAt);
    expect(await sendHeld(deps)).toBe(1);
    expect((await given()).length).toBeGreaterThan(before);
    expect((await bodies('dispatch.sent')).at(-1)).toContain(`"consent":"${asked?.id ?? ''}"`);
  });

  test('leaves at once where its time has passed when they agree', async () => {
    const { deps, ida } = product;
    const leavesAt = laterOn();
    await sendDocuments(deps, ida, { ...toDomain(), leavesAt });
    const [asked] = await listConsents(deps, otto);
    product.clock.set(leavesAt + MINUTE);
    const before = (await grantRows(deps, ida, { document })).length;
    await answerConsent(deps, otto, { id: asked?.id ?? 'cns_', agree: true });
    expect(await viewHeld(deps, ida)).toEqual([]);
    expect((await grantRows(deps, ida, { document })).length).toBeGreaterThan(before);
  });

  test('is a draft of its sender again where they decline', async () => {
    const { deps, ida } = product;
    const { id } = await keepDraft(
      deps,
      ida,
      keepDraftInput.parse({
        id: null,
        body: {
          sheet: EMPTY_SHEET,
          subject: 'Declined',
          note: 'as it was',
          watermark: [newLayer('tiled', '{address}')],
          way: {
            form: 'link',
            delivery: 'mail',
            titleOnCover: false,
            noteInMail: true,
            reason: '',
          },
          waved: [],
        },
      }),
    );
    await sendDocuments(deps, ida, { ...toDomain(), draft: id });
    const notes = async () => (await draftsOf(deps.db.read, ida.id)).map(({ body }) => body.note);
    expect(await notes()).toEqual([]);
    const [asked] = await listConsents(deps, otto);
    await answerConsent(deps, otto, { id: asked?.id ?? 'cns_', agree: false });
    expect(await notes()).toEqual(['as it was']);
  });

  test('is taken back by who asked, declined by who answers, and shown to nobody else', async () => {
    await sendDocuments(product.deps, product.ida, toDomain());
    expect(await listConsents(product.deps, nils)).toEqual([]);
    const [own] = await listConsents(product.deps, product.ida);
    expect(own).toMatchObject({ own: true });
    await answerConsent(product.deps, product.ida, { id: own?.id ?? 'cns_', agree: false });
    expect(await listConsents(product.deps, otto)).toEqual([]);
  });

  test('is not asked for what could not be sent anyway', async () => {
    await expect(
      sendDocuments(product.deps, product.ida, {
        ...toDomain(),
        terms: { rights: ['read'], from: null, until: 1, prints: null },
      }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    await expect(sendDocuments(product.deps, nils, toDomain())).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    expect(await listConsents(product.deps, otto)).toEqual([]);
  });

  test('cannot be gone around by adding to a dispatch', async () => {
    const sent = await dispatch(product, [document], ['per@x.example']);
    await expect(
      addPeople(product.deps, product.ida, {
        id: sent.id,
        recipients: [],
        domains: [{ domain: '@other.example' }],
        terms: input().terms,
      }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  });
});

describe('marking lower', () => {
  let open: `mrk_${string}`;
  let strict: `mrk_${string}`;
  beforeAll(async () => {
    ({ id: open } = await putMarking(product.deps, product.ida, {
      id: null,
      name: 'For anybody',
      meaning: '',
    }));
    ({ id: strict } = await putMarking(product.deps, product.ida, {
      id: null,
      name: 'Bidders',
      meaning: '',
    }));
    await fileDocuments(product.deps, product.ida, { documents: [document], markingId: strict });
    await decide('lower-marking', 'agreed');
  });
  const markingOf = async () =>
    (await findDocument(product.deps.db.read, document))?.document.markingId;

  test('waits for a second person, while marking higher does not', async () => {
    expect(
      await fileDocuments(product.deps, product.ida, { documents: [document], markingId: open }),
    ).toEqual({ changed: 0, waits: true });
    expect(await markingOf()).toBe(strict);
    const [waiting] = await listConsents(product.deps, otto);
    expect(waiting).toMatchObject({ kind: 'lower-marking', subject: 'For anybody' });
    await answerConsent(product.deps, otto, { id: waiting?.id ?? 'cns_', agree: true });
    expect(await markingOf()).toBe(open);
    expect(
      await fileDocuments(product.deps, product.ida, { documents: [document], markingId: strict }),
    ).toEqual({ changed: 1, waits: false });
  });

  test('follows the order of the list, and is refused where nobody may', async () => {
    await putMarking(product.deps, product.ida, {
      id: strict,
      name: 'Bidders',
      meaning: '',
      up: true,
    });
    expect(
      await fileDocuments(product.deps, product.ida, { documents: [document], markingId: open }),
    ).toEqual({ changed: 1, waits: false });
    await decide('lower-marking', 'forbidden');
    await expect(
      fileDocuments(product.deps, product.ida, { documents: [document], markingId: strict }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await decide('lower-marking', 'allowed');
  });
});

describe('a link that asks for no proof', () => {
  let token: string;
  let grant: `grt_${string}`;
  beforeAll(async () => {
    await decide('open-link', 'allowed');
    const { id } = await sendDocuments(
      product.deps,
      product.ida,
      input({ recipients: [], openLink: {}, delivery: 'by-hand' }),
    );
    const [row] = await grantRows(product.deps, product.ida, { dispatch: id ?? 'dsp_' });
    token = row?.link.split('/').at(-1) ?? '';
    grant = row?.id ?? 'grt_';
  });
  async function visit(): Promise<ReaderActor> {
    const actor = stranger();
    const { deviceToken } = await visitLink(product.deps, actor, {
      token,
      publicKey: await newPublicKey(),
    });
    const device = await findDeviceByToken(
      product.deps.db.read,
      product.deps.vault.mac('device', deviceToken),
      product.clock.now(),
    );
    if (device === null) throw new Error('no device');
    return {
      kind: 'reader',
      device: device.id,
      kept: device.kept,
      provenAt: device.provenAt,
      passkeyAt: device.passkeyAt,
      address: device.address,
      recipient: device.recipientId,
      from: actor.from,
    };
  }
  const rows = () => grantRows(product.deps, product.ida, { document });

  test('lets in anyone who holds it, each as somebody of their own who is not known', async () => {
    expect(await proofAsked(product.deps, token)).toBe('nothing');
    const people = (await listPeople(product.deps, product.ida, { q: '' })).total;
    const [one, two] = [await visit(), await visit()];
    expect(await openDocument(product.deps, one, { token, document })).toMatchObject({
      outcome: 'granted',
    });
    expect(await openDocument(product.deps, two, { token, document })).toMatchObject({
      outcome: 'granted',
    });
    expect(
      (await rows())
        .filter(({ kind }) => kind === 'visitor')
        .map(({ name, opens }) => [name, opens]),
    ).toEqual([
      ['Somebody with the link', 1],
      ['Somebody with the link', 1],
    ]);
    expect((await listPeople(product.deps, product.ida, { q: '' })).total).toBe(people);
  });

  test('leaves who has proven an address who they are', async () => {
    const other = await dispatch(
      product,
      [await protect(product, bytes, 'Another')],
      ['ann@y.example'],
    );
    const ann = await prove(product, other.tokenOf('ann@y.example'), 'ann@y.example');
    expect((await sharedWith(product.deps, ann, { token })).documents).toMatchObject([
      { id: document, state: { open: true } },
    ]);
    expect((await rows()).find(({ address }) => address === 'ann@y.example')).toMatchObject({
      kind: 'person',
      parent: grant,
    });
  });

  test('is revoked for everybody who came by it, and leads nowhere then', async () => {
    const before = await visit();
    await revokeGrants(product.deps, product.ida, { grants: [grant] });
    expect(await openDocument(product.deps, before, { token, document })).toMatchObject({
      outcome: 'refused',
      reason: 'revoked',
    });
    await expect(visit()).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });

  test('is no way in by a link that asks for proof', async () => {
    const sent = await dispatch(product, [document], ['per@z.example']);
    await expect(
      visitLink(product.deps, stranger(), {
        token: sent.tokenOf('per@z.example'),
        publicKey: await newPublicKey(),
      }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
    expect(await proofAsked(product.deps, sent.tokenOf('per@z.example'))).toBe('address');
    expect(await proofAsked(product.deps, 'x')).toBeNull();
  });
});

describe('what goes out unprotected', () => {
  beforeEach(async () => {
    await decide('unprotected', 'allowed');
  });

  test('needs a reason, a mail and people by name', async () => {
    await decide('domain', 'allowed');
    const wrong: readonly Partial<DispatchInput>[] = [
      { reason: '' },
      { reason: 'x', delivery: 'by-hand' },
      { reason: 'x', domains: [{ domain: '@yard.example' }] },
    ];
    for (const over of wrong)
      await expect(
        sendDocuments(product.deps, product.ida, input({ form: 'unprotected', ...over })),
      ).rejects.toMatchObject({ code: 'INVALID' });
  });

  test.each<Partial<Limits>>([
    { rights: ['read', 'print'] },
    { prints: 5 },
    { rights: ['read', 'copy', 'print'] },
  ])(
    'does not leave where a ceiling lets nobody keep it, no matter who asks: %j',
    async (limits) => {
      const limit = async (to: Partial<Limits>) => {
        const known = (await listCeilings(product.deps.db.read)).find(
          ({ subject }) => subject === document,
        );
        await putCeiling(product.deps, product.ida, {
          level: 'document',
          subject: document,
          limits: { ...NO_LIMITS, ...to },
          seen: known?.setAt ?? null,
        });
      };
      onTestFinished(() => limit({}));
      await limit(limits);
      const asked = input({ form: 'unprotected', reason: 'They asked for it.' });
      await expect(sendDocuments(product.deps, product.ida, asked)).rejects.toMatchObject({
        problem: 'keep-forbidden',
        fields: { title: 'Weight list' },
      });
      await limit({ days: 9 });
      await expect(sendDocuments(product.deps, product.ida, asked)).resolves.toMatchObject({
        waits: false,
      });
    },
  );

  test('arrives in the clear, byte for byte, and the record says that and why', async () => {
    const { id } = await sendDocuments(
      product.deps,
      product.ida,
      input({
        form: 'unprotected',
        reason: 'The port office cannot open anything else.',
        subject: 'In the clear',
      }),
    );
    await deliverMail(product.deps);
    const { messages } = await readMailroom(product.deps, { address: 'mira@x.example' });
    const message = await readMessage(product.deps, {
      id: messages.find(({ subject }) => subject === 'In the clear')?.id ?? '',
    });
    const mail = await simpleParser(message.raw);
    expect(mail.text).not.toMatch(/\/r\//);
    expect(mail.attachments.map(({ filename }) => filename)).toEqual([
      expect.stringMatching(/^REF-\d+ Weight list\.pdf$/),
    ]);
    expect(
      Buffer.compare(mail.attachments[0]?.content ?? Buffer.alloc(0), Buffer.from(bytes)),
    ).toBe(0);
    expect((await bodies('dispatch.sent')).at(-1)).toContain('"delivery":"unprotected"');
    expect((await bodies('key.unwrapped')).at(-1)).toContain('send-unprotected');
    // Nobody else gets it by way of that dispatch, nor they once more.
    const dispatched = id ?? 'dsp_';
    await expect(
      addPeople(product.deps, product.ida, {
        id: dispatched,
        recipients: [{ address: 'per@x.example', name: '', organisation: '' }],
        terms: input().terms,
      }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    const mira =
      (await grantRows(product.deps, product.ida, { dispatch: dispatched }))[0]?.recipientId ??
      'rcp_';
    await expect(
      mailAgain(product.deps, product.ida, { id: dispatched, recipients: [mira] }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await markLeft(product.deps, product.ida, { id: mira, successor: 'heir@x.example' });
    expect(
      (await grantRows(product.deps, product.ida, { dispatch: dispatched })).map(
        ({ address }) => address,
      ),
    ).toEqual(['mira@x.example']);
    expect(await grantRows(product.deps, product.ida, { dispatch: dispatched })).toMatchObject([
      { rights: ['read', 'copy', 'print', 'keep'], until: null },
    ]);
  });
});

describe('a sender’s limits', () => {
  let own: DocumentId;
  const limits = {
    domains: ['@yard.example'],
    folders: null,
    rights: ['read' as const, 'print' as const],
    days: 10,
  };
  const soon = START + 8.64e7;
  beforeAll(async () => {
    own = await protect(product, bytes, 'His own');
    await fileDocuments(product.deps, product.ida, { documents: [own], ownerId: nils.id });
    await changeSenderLimits(product.deps, product.ida, { id: nils.id, limits, seen: null });
  });
  const send = (over: Partial<DispatchInput> = {}, actor = nils) =>
    sendDocuments(
      product.deps,
      actor,
      input({
        documents: [own],
        recipients: [{ address: 'mira@yard.example', name: '', organisation: '' }],
        terms: { rights: ['read'], from: null, until: soon, prints: null },
        delivery: 'by-hand',
        ...over,
      }),
    );

  test('hold wherever access comes into being, naming who set them, and bind no administrator', async () => {
    await expect(
      send({ recipients: [{ address: 'x@other.example', name: '', organisation: '' }] }),
    ).rejects.toMatchObject({
      problem: 'beyond-own-limits',
      fields: { beyond: { people: ['x@other.example'] }, setBy: 'Ida Roe' },
    });
    await expect(
      send({ terms: { rights: ['read'], from: null, until: null, prints: null } }),
    ).rejects.toMatchObject({ fields: { beyond: { days: 10 } } });
    await expect(
      giveTo(product.deps, nils, {
        id: own,
        recipients: [
          (await grantRows(product.deps, product.ida, { document })).find(
            ({ address }) => address === 'mira@x.example',
          )?.recipientId ?? 'rcp_',
        ],
        terms: { rights: ['read'], from: null, until: soon, prints: null },
        watermark: [],
      }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    expect(
      await send(
        { recipients: [{ address: 'x@other.example', name: '', organisation: '' }] },
        product.ida,
      ),
    ).toMatchObject({ waits: false });
    expect(await send()).toMatchObject({ waits: false });
  });

  test('hold for what is widened later, and not for what is narrowed', async () => {
    const row = (await grantRows(product.deps, nils, { document: own })).find(
      ({ address }) => address === 'mira@yard.example',
    );
    const change = (over: object) =>
      changeGrants(product.deps, nils, {
        changes: [{ grant: row?.id ?? 'grt_', revision: row?.revision ?? 0, ...over }],
      });
    await expect(change({ rights: ['read', 'copy'] })).rejects.toMatchObject({
      problem: 'beyond-own-limits',
      fields: { beyond: { rights: ['copy'] } },
    });
    await expect(change({ until: null })).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await expect(change({ until: soon - 1000 })).resolves.toMatchObject({
      changed: [{ grant: row?.id }],
    });
  });

  test('are set for senders alone, not over what somebody else set, and undone by what they were', async () => {
    await expect(
      changeSenderLimits(product.deps, product.ida, { id: otto.id, limits, seen: null }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    await expect(
      changeSenderLimits(product.deps, product.ida, { id: nils.id, limits, seen: null }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    const seen = (await viewOwnLimits(product.deps, nils))?.setAt ?? null;
    const { before } = await changeSenderLimits(product.deps, product.ida, {
      id: nils.id,
      limits: { domains: null, folders: null, rights: null, days: null },
      seen,
    });
    expect(before).toEqual(limits);
    expect(await viewOwnLimits(product.deps, nils)).toBeNull();
    expect(
      senderLimitsInput.safeParse({
        id: nils.id,
        limits: { ...limits, domains: ['yard.example'] },
        seen: null,
      }).data?.limits.domains,
    ).toEqual(['@yard.example']);
    expect(
      senderLimitsInput.safeParse({
        id: nils.id,
        limits: { ...limits, domains: ['not a domain'] },
        seen: null,
      }).success,
    ).toBe(false);
  });
});
