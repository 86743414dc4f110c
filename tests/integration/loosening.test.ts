// What an administrator set, no sender loosens; and what reaches far needs a proof, and a second person who is one.
import { newLayer } from '@/core/watermark/layers';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId, FolderId } from '@/core/base/ids';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { NO_DEFAULTS } from '@/core/policy/defaults';
import { findPerson } from '@/server/repositories/people/people-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { destroyWords } from '@/core/policy/destroy-words';
import { documents } from '@/server/db/schema/documents';
import { answerConsent, listConsents } from '@/server/services/consents/answer-consents';
import { reinstateDocument, revokeDocument } from '@/server/services/access/revoke-document';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import type { StaffActor } from '@/server/services/base/deps';
import { destroyKey, destroyKeys } from '@/server/services/documents/destroy-keys';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { putDefaults } from '@/server/services/policy/manage-defaults';
import {
  changeFolder,
  makeFolder,
  putMarking,
  removeFolder,
} from '@/server/services/filing/manage-filing';
import { changeMembers, putGroup, removeGroup } from '@/server/services/people/manage-groups';
import { setTwoPeople } from '@/server/services/keys/manage-keys';
import { changePerson } from '@/server/services/people/manage-people';
import { putRule } from '@/server/services/policy/manage-rules';
import { changeStaff } from '@/server/services/staff/manage-staff';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { confirmFactor, offerFactor } from '@/server/services/staff/prove-staff';
import { readMailroom } from '@/server/services/demo/read-mailroom';
import { changeSenderLimits } from '@/server/services/policy/sender-limits';
import { START, dispatch, drawing, protect, startProduct, type Product } from '../support/product';
import { joinStaff } from '../support/staff';

let product: Product;
let sender: StaffActor;
let paper: Uint8Array;
let names = 0;
const fresh = (): string => `n${String(names++)}`;
beforeAll(async () => {
  product = await startProduct();
  sender = await joinStaff(product, 'sender', 'sam');
  paper = await drawing(1);
});
afterAll(async () => {
  await product.close();
});

const NO_SENDER_LIMITS = { domains: null, folders: null, rights: null, days: null };
const NOT_ALLOWED = { code: 'NOT_ALLOWED' };
const ownDocument = async (): Promise<DocumentId> =>
  protect({ ...product, ida: sender }, paper, fresh());
const folderOf = async (actor: StaffActor, parentId: FolderId | null = null) =>
  (await makeFolder(product.deps, actor, { name: fresh(), parentId })).id;
const limit = (subject: string) =>
  putCeiling(product.deps, product.ida, {
    level: 'folder',
    subject,
    limits: { ...NO_LIMITS, rights: ['read'] },
    seen: null,
  });
const mark = (subject: string, watermark = 'SECRET') =>
  putDefaults(product.deps, product.ida, {
    level: 'folder',
    subject,
    defaults: NO_DEFAULTS,
    watermark: [newLayer('tiled', watermark)],
    seen: null,
  });

describe('a sender', () => {
  let document: DocumentId;
  beforeEach(async () => {
    document = await ownDocument();
  });

  test.each([
    ['ceiling', limit],
    ['required watermark', mark],
  ])('does not file their own document out of a folder with a %s', async (_what, set) => {
    const folder = await folderOf(sender);
    await fileDocuments(product.deps, sender, { documents: [document], folderId: folder });
    await set(folder);
    for (const folderId of [null, await folderOf(sender)])
      await expect(
        fileDocuments(product.deps, sender, { documents: [document], folderId }),
      ).rejects.toMatchObject(NOT_ALLOWED);
    await expect(
      fileDocuments(product.deps, sender, {
        documents: [document],
        folderId: await folderOf(sender, folder),
      }),
    ).resolves.toMatchObject({ changed: 1 });
    await expect(
      fileDocuments(product.deps, product.ida, { documents: [document], folderId: null }),
    ).resolves.toMatchObject({ changed: 1 });
  });

  test('does not move a folder out from under one, and what is far below it counts', async () => {
    const top = await folderOf(product.ida);
    const own = await folderOf(sender, top);
    const below = await folderOf(sender, own);
    await fileDocuments(product.deps, sender, { documents: [document], folderId: below });
    await limit(top);
    await expect(
      changeFolder(product.deps, sender, { id: own, parentId: null }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    await expect(changeFolder(product.deps, sender, { id: own, name: fresh() })).resolves.toEqual(
      {},
    );
    await expect(
      changeFolder(product.deps, product.ida, { id: own, parentId: null }),
    ).resolves.toEqual({});
  });

  test('does not mark lower what that would loosen', async () => {
    const [low, high] = [
      await putMarking(product.deps, product.ida, { id: null, name: fresh(), meaning: '' }),
      await putMarking(product.deps, product.ida, { id: null, name: fresh(), meaning: '' }),
    ];
    await fileDocuments(product.deps, sender, { documents: [document], markingId: high.id });
    await expect(
      fileDocuments(product.deps, sender, { documents: [document], markingId: low.id }),
    ).resolves.toMatchObject({ changed: 1 });
    await fileDocuments(product.deps, sender, { documents: [document], markingId: high.id });
    await putCeiling(product.deps, product.ida, {
      level: 'marking',
      subject: high.id,
      limits: { ...NO_LIMITS, days: 3 },
      seen: null,
    });
    await expect(
      fileDocuments(product.deps, sender, { documents: [document], markingId: low.id }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    await expect(
      fileDocuments(product.deps, sender, { documents: [document], markingId: null }),
    ).rejects.toMatchObject(NOT_ALLOWED);
  });

  test('leaves others’ folders and groups alone, and people whom others added', async () => {
    const folder = await folderOf(product.ida);
    await expect(
      changeFolder(product.deps, sender, { id: folder, name: fresh() }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    await expect(removeFolder(product.deps, sender, { id: folder })).rejects.toMatchObject(
      NOT_ALLOWED,
    );
    const own = await folderOf(sender);
    await limit(own);
    await expect(removeFolder(product.deps, sender, { id: own })).rejects.toMatchObject(
      NOT_ALLOWED,
    );
    const group = await putGroup(product.deps, product.ida, { id: null, name: fresh() });
    await expect(
      putGroup(product.deps, sender, { id: group.id, name: fresh() }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    await expect(removeGroup(product.deps, sender, { id: group.id })).rejects.toMatchObject(
      NOT_ALLOWED,
    );
    const address = `${fresh()}@yard.example`;
    await dispatch(product, [await protect(product, paper, fresh())], [address]);
    const person = await findRecipientByAddress(product.deps.db.read, address);
    const id = person?.id ?? 'rcp_';
    await expect(
      changePerson(product.deps, sender, { id, name: 'Somebody Else' }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    expect((await findPerson(product.deps.db.read, id))?.name).toBe('');
    const theirs = `${fresh()}@yard.example`;
    await dispatch({ ...product, ida: sender }, [document], [theirs]);
    await expect(
      changePerson(product.deps, sender, {
        id: (await findRecipientByAddress(product.deps.db.read, theirs))?.id ?? 'rcp_',
        name: 'Per Holm',
      }),
    ).resolves.toEqual({});
  });

  test('puts nobody into a group whom they could not have sent the same', async () => {
    const limited = await joinStaff(product, 'sender', fresh());
    const own = await protect({ ...product, ida: limited }, paper, fresh());
    const outside = `${fresh()}@other.example`;
    await dispatch(product, [await protect(product, paper, fresh())], [outside]);
    const group = await putGroup(product.deps, limited, { id: null, name: fresh() });
    const input = {
      documents: [own],
      recipients: [],
      groups: [{ id: group.id }],
      terms: { rights: ['read' as const], from: null, until: START + DAY, prints: null },
      subject: 's',
      note: '',
      watermark: [],
      delivery: 'by-hand' as const,
    };
    await dispatchDocuments(product.deps, limited, input);
    await changeSenderLimits(product.deps, product.ida, {
      id: limited.id,
      limits: { ...NO_SENDER_LIMITS, domains: ['@yard.example'] },
      seen: null,
    });
    const person = (await findRecipientByAddress(product.deps.db.read, outside))?.id ?? 'rcp_';
    await expect(
      changeMembers(product.deps, limited, { id: group.id, add: [person], remove: [] }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    expect(await grantRows(product.deps, product.ida, { document: own })).toHaveLength(1);
  });

  test('does not take back what an administrator revoked, nor more than they may give', async () => {
    const address = `${fresh()}@yard.example`;
    const { grants } = await dispatch({ ...product, ida: sender }, [document], [address]);
    const id = grants[0]?.id ?? 'grt_';
    await revokeGrants(product.deps, product.ida, { grants: [id] });
    await expect(reinstateGrants(product.deps, sender, { grants: [id] })).rejects.toMatchObject(
      NOT_ALLOWED,
    );
    await reinstateGrants(product.deps, product.ida, { grants: [id] });
    await revokeGrants(product.deps, sender, { grants: [id] });
    await expect(reinstateGrants(product.deps, sender, { grants: [id] })).resolves.toEqual({
      changed: 1,
    });
    await revokeGrants(product.deps, sender, { grants: [id] });
    const { setAt } = await changeSenderLimits(product.deps, product.ida, {
      id: sender.id,
      limits: { ...NO_SENDER_LIMITS, days: 3 },
      seen: null,
    });
    await expect(reinstateGrants(product.deps, sender, { grants: [id] })).rejects.toMatchObject(
      NOT_ALLOWED,
    );
    await changeSenderLimits(product.deps, product.ida, {
      id: sender.id,
      limits: NO_SENDER_LIMITS,
      seen: setAt,
    });
    await revokeDocument(product.deps, product.ida, { id: document });
    await expect(reinstateDocument(product.deps, sender, { id: document })).rejects.toMatchObject(
      NOT_ALLOWED,
    );
  });
});

test('an open link is seen, and its file taken, by who made it alone', async () => {
  await putRule(product.deps, product.ida, {
    way: 'open-link',
    leave: 'allowed',
    reason: 'for this',
    seen: null,
  });
  const document = await ownDocument();
  const input = {
    documents: [document],
    recipients: [],
    openLink: {},
    terms: { rights: ['read' as const], from: null, until: START + DAY, prints: null },
    subject: 's',
    note: '',
    watermark: [],
    delivery: 'by-hand' as const,
  };
  const { id } = await dispatchDocuments(product.deps, sender, input);
  const [own] = await grantRows(product.deps, sender, { dispatch: id });
  const [others] = await grantRows(product.deps, product.ida, { dispatch: id });
  expect(own?.link).toMatch(/\/r\/[0-9a-z]{24}$/);
  expect(others).toMatchObject({ id: own?.id, link: '' });
  await expect(
    takeProtectedFile(product.deps, product.ida, {
      id,
      document,
      recipient: own?.recipientId ?? 'rcp_',
    }),
  ).rejects.toMatchObject(NOT_ALLOWED);
});

describe('what reaches far', () => {
  const stale = (): StaffActor => ({ ...product.ida, proven: false });

  test('needs a fresh proof: another second factor as well as none', async () => {
    await expect(offerFactor(product.deps, stale())).rejects.toMatchObject({ code: 'PROVE_AGAIN' });
    const { secret, seal } = await offerFactor(product.deps, product.ida);
    await expect(
      confirmFactor(product.deps, stale(), { secret, seal, code: '000000' }),
    ).rejects.toMatchObject({ code: 'PROVE_AGAIN' });
  });

  test('needs it for many small revocations as for a large one', async () => {
    const document = await protect(product, paper, fresh());
    const { grants } = await dispatch(
      product,
      [document],
      Array.from({ length: 27 }, () => `${fresh()}@yard.example`),
    );
    product.clock.set(product.clock.now() + DAY);
    let refused: unknown = null;
    let revoked = 0;
    for (const { id } of grants) {
      await revokeGrants(product.deps, stale(), { grants: [id] }).then(
        () => revoked++,
        (error: unknown) => {
          refused = error;
        },
      );
      if (refused !== null) break;
    }
    expect(refused).toMatchObject({ code: 'PROVE_AGAIN' });
    expect(revoked).toBe(25);
    const other = await protect(product, paper, fresh());
    await dispatch(product, [other], [`${fresh()}@yard.example`]);
    await expect(revokeDocument(product.deps, stale(), { id: other })).rejects.toMatchObject({
      code: 'PROVE_AGAIN',
    });
    await expect(revokeDocument(product.deps, product.ida, { id: other })).resolves.toEqual({
      changed: 1,
    });
  });

  test('is not approved by an administrator whom the asker made just now; all of them hear of it', async () => {
    const [a, b] = [await protect(product, paper, fresh()), await protect(product, paper, fresh())];
    const vera = await joinStaff(product, 'administrator', 'vera', product.clock.now());
    await setTwoPeople(product.deps, product.ida, { on: true });
    await deliverMail(product.deps);
    expect(
      (await readMailroom(product.deps, { address: product.ida.email })).messages.map(
        ({ subject }) => subject,
      ),
    ).toContain('vera becomes an administrator at Tern & Quill');
    expect(
      await destroyKeys(product.deps, product.ida, {
        documents: [a, b],
        typed: destroyWords(2),
        reason: 'leaked',
      }),
    ).toMatchObject({ waits: true });
    const [consent] = await listConsents(product.deps, vera);
    await expect(
      answerConsent(product.deps, vera, { id: consent?.id ?? 'cns_', agree: true }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    product.clock.set(product.clock.now() + 3 * DAY - 1);
    await expect(
      answerConsent(product.deps, vera, { id: consent?.id ?? 'cns_', agree: true }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    // Being disabled and let in again begins anew.
    await changeStaff(product.deps, product.ida, { id: vera.id, disabled: true });
    await changeStaff(product.deps, product.ida, { id: vera.id, disabled: false });
    product.clock.set(product.clock.now() + 1);
    await expect(
      answerConsent(product.deps, vera, { id: consent?.id ?? 'cns_', agree: true }),
    ).rejects.toMatchObject(NOT_ALLOWED);
    product.clock.set(product.clock.now() + 3 * DAY);
    await expect(
      answerConsent(product.deps, vera, { id: consent?.id ?? 'cns_', agree: true }),
    ).resolves.toMatchObject({ destroyed: 2 });
    // One after another is several as well.
    const [c, d] = [await protect(product, paper, fresh()), await protect(product, paper, fresh())];
    const referenceOf = async (id: DocumentId) =>
      (await product.deps.db.read.select().from(documents)).find((each) => each.id === id)
        ?.reference ?? '';
    await expect(
      destroyKey(product.deps, product.ida, { id: c, typed: await referenceOf(c) }),
    ).resolves.toEqual({});
    await expect(
      destroyKey(product.deps, product.ida, { id: d, typed: await referenceOf(d) }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    expect(
      await destroyKeys(product.deps, product.ida, {
        documents: [d],
        typed: destroyWords(1),
        reason: '',
      }),
    ).toMatchObject({ waits: true });
  });
});
