// The list that closes itself: who is shut out since when, who tried, who still reads, what was
// taken; and the statement of it.
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY, HOUR, toUtcText } from '@/core/base/time';
import type { DispatchId, DocumentId } from '@/core/base/ids';
import { openStatement } from '@/core/ledger/statement';
import type { AfterRow } from '@/contracts/after-revocation';
import { statementCommand } from '@/cli/commands/statement-check';
import { viewAfterRevocation } from '@/server/services/ledger/after-revocation';
import { revokeDocument, reinstateDocument } from '@/server/services/access/revoke-document';
import { revokeGrants, reinstateGrants } from '@/server/services/access/revoke-grants';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import type { ReaderActor, StaffActor } from '@/server/services/base/deps';
import { grantRows } from '@/server/services/access/grant-rows';
import { noteCheckpoints } from '@/server/services/ledger/note-checkpoints';
import { readConfig } from '@/server/config/env';
import { setFiled } from '@/server/repositories/documents/document-repository';
import { insertStaff } from '@/server/repositories/staff/staff-repository';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { putRule } from '@/server/services/policy/manage-rules';
import { openDocument } from '@/server/services/reading/open-document';
import { noteCopied, readText } from '@/server/services/reading/read-pages';
import { printDocument } from '@/server/services/reading/take-copies';
import { revocationStatement } from '@/server/services/ledger/revocation-statement';
import { verifyEd25519 } from '@/server/vault/vault';
import { nodeHash } from '@/server/vault/node-hash';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  whole,
  type Product,
} from '../support/product';

let product: Product;
let document: DocumentId;
let first: DispatchId;
let again: DispatchId;
const readers = new Map<string, { readonly reader: ReaderActor; readonly token: string }>();

async function open(address: string) {
  const known = readers.get(address);
  if (known === undefined) throw new Error(`nobody is ${address}`);
  return openDocument(product.deps, known.reader, { token: known.token, document });
}
const rowsOf = async (
  input: Parameters<typeof viewAfterRevocation>[2],
): Promise<Readonly<Record<string, AfterRow>>> =>
  Object.fromEntries(
    (await viewAfterRevocation(product.deps, product.ida, input)).rows.map((row) => [
      row.address,
      row,
    ]),
  );

/**
 * Two read by one dispatch, one of them by another as well; one takes text and a print, one may
 * read offline for an hour.
 */
beforeAll(async () => {
  product = await startProduct();
  const { deps, ida, clock } = product;
  document = await protect(product, await drawing(2));
  ({ id: first } = await dispatch(
    product,
    [document],
    ['mira@yard.example', 'jon@works.example', 'una@class.example'],
    { rights: ['read', 'copy', 'print'], until: START + 30 * DAY },
  ));
  ({ id: again } = await dispatch(product, [document], ['jon@works.example'], {
    rights: ['read'],
    until: START + 20 * DAY,
  }));
  for (const { address, link } of await grantRows(deps, ida, { dispatch: first })) {
    const token = link.split('/').at(-1) ?? '';
    readers.set(address, { token, reader: await prove(product, token, address) });
  }
  const opened = await open('mira@yard.example');
  const { reader } = readers.get('mira@yard.example') ?? {};
  if (opened.outcome !== 'granted' || reader === undefined) throw new Error('it was refused');
  await readText(deps, reader, { licence: opened.licence, page: 1 });
  await noteCopied(deps, reader, { licence: opened.licence, page: 1, characters: 9 });
  const print = await printDocument(deps, reader, { licence: opened.licence, from: 1, to: 1 });
  if (print.outcome === 'made') await whole(print);
  clock.set(START + DAY);
});
afterAll(async () => {
  await product.close();
});

describe('after a dispatch was pulled back', () => {
  beforeAll(async () => {
    const grants = (await grantRows(product.deps, product.ida, { dispatch: first })).map(
      ({ id }) => id,
    );
    await revokeGrants(product.deps, product.ida, { grants, reason: 'The tender is over' });
    product.clock.set(START + DAY + HOUR);
  });

  test('it says who is shut out since when and why, and who still reads, how and until when', async () => {
    const rows = await rowsOf({ dispatch: first });
    expect(rows['mira@yard.example']).toMatchObject({
      since: START + DAY,
      by: 'Ida Roe',
      reason: 'The tender is over',
      ways: [],
      tries: 0,
      copies: { prints: 1, keptAt: null, textSent: true, textCopied: true, inTheClear: false },
    });
    expect(rows['jon@works.example']).toMatchObject({
      since: null,
      until: START + 20 * DAY,
      ways: [{ by: 'own', dispatch: 'D-0002' }],
      copies: { prints: 0, textSent: false },
    });
    expect(
      (await viewAfterRevocation(product.deps, product.ida, { dispatch: first })).rows.map(
        ({ address }) => address,
      )[0],
    ).toBe('jon@works.example');
  });

  test('it closes itself: anyone who tries is named, and once the other way is closed nobody reads', async () => {
    expect((await open('mira@yard.example')).outcome).toBe('refused');
    expect((await open('jon@works.example')).outcome).toBe('granted');
    expect((await rowsOf({ dispatch: first }))['mira@yard.example']).toMatchObject({
      tries: 1,
      lastTry: START + DAY + HOUR,
    });
    await revokeGrants(product.deps, product.ida, {
      grants: (await grantRows(product.deps, product.ida, { dispatch: again })).map(({ id }) => id),
    });
    expect((await rowsOf({ dispatch: first }))['jon@works.example']).toMatchObject({
      since: START + DAY + HOUR,
      ways: [],
    });
  });

  test('what was reinstated is off the list', async () => {
    const una = (await rowsOf({ dispatch: first }))['una@class.example'];
    await reinstateGrants(product.deps, product.ida, { grants: una?.undo ?? [] });
    expect((await rowsOf({ dispatch: first }))['una@class.example']).toBeUndefined();
  });

  test('a statement of it is signed, and every line of it stands in the ledger', async () => {
    const { text, name } = await revocationStatement(product.deps, product.ida, {
      dispatch: first,
    });
    const statement = openStatement(
      text,
      product.deps.recorder.signer.publicKey,
      nodeHash,
      verifyEd25519,
    );
    expect(name).toBe('after the revocation of D-0001.txt');
    expect(statement.rows.map(({ address, state }) => [address, state])).toEqual([
      ['mira@yard.example', 'closed'],
      ['jon@works.example', 'closed'],
    ]);
    expect(statement.rows[0]).toMatchObject({
      since: toUtcText(START + DAY),
      tries: 1,
      reason: 'The tender is over',
      copies: ['1 print made', 'text copied'],
    });
    expect(
      statement.entries.map(({ text: entry }) => (JSON.parse(entry) as { action: string }).action),
    ).toEqual(
      expect.arrayContaining([
        'grant.revoked',
        'document.opened',
        'document.printed',
        'text.copied',
      ]),
    );
    expect(text).toContain('shut out since');
  });

  test.each<readonly [string, (text: string) => string]>([
    ['a line', (text) => text.replace('has tried 1 time', 'has tried 9 times')],
    ['the data', (text) => text.replace('"tries":1', '"tries":0')],
    [
      'an entry',
      (text) => text.replace('\\"outcome\\":\\"refused\\"', '\\"outcome\\":\\"granted\\"'),
    ],
    [
      'the signature',
      (text) =>
        text.replace(
          / (.)(\S+)\n$/,
          (_all, first: string, rest: string) => ` ${first === 'B' ? 'C' : 'B'}${rest}\n`,
        ),
    ],
  ])('a statement of which %s was changed does not hold', async (_what, harm) => {
    const { text } = await revocationStatement(product.deps, product.ida, { dispatch: first });
    expect(harm(text)).not.toBe(text);
    expect(() =>
      openStatement(harm(text), product.deps.recorder.signer.publicKey, nodeHash, verifyEd25519),
    ).toThrow('The statement is malformed, was changed, or was not signed');
  });

  test('the command line checks one against the witness file alone', async () => {
    const { text } = await revocationStatement(product.deps, product.ida, { dispatch: first });
    await noteCheckpoints(product.deps);
    const folder = mkdtempSync(path.join(tmpdir(), 'embargo-statement-'));
    const check = (content: string) => {
      writeFileSync(path.join(folder, 'statement.txt'), content);
      const config = () => readConfig({ DATA_DIR: product.folder });
      return statementCommand.run({
        files: [path.join(folder, 'statement.txt')],
        text: () => config().witnessFile,
        texts: () => [],
        flag: () => false,
        config,
        progress: () => undefined,
      });
    };
    await expect(check(text)).resolves.toMatchObject({ code: 0 });
    await expect(check(text.replace('shut out', 'let in'))).resolves.toMatchObject({ code: 1 });
  });

  test('is for anyone who sent it, and for those who read the whole record', async () => {
    const other: StaffActor = { ...product.ida, id: 'stf_other000000000000000', role: 'sender' };
    await expect(
      revocationStatement(product.deps, other, { dispatch: first }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await expect(
      revocationStatement(product.deps, { ...other, role: 'auditor' }, { dispatch: first }),
    ).resolves.toBeDefined();
    for (const of of [{ dispatch: first }, { document }])
      await expect(viewAfterRevocation(product.deps, other, of)).rejects.toMatchObject({
        code: 'NOT_ALLOWED',
      });
    expect(
      (
        await viewAfterRevocation(product.deps, { ...other, role: 'auditor' }, { dispatch: first })
      ).rows.flatMap(({ undo }) => undo),
    ).toEqual([]);
  });
});

describe('what is said is so', () => {
  const openBy = async (token: string, address: string, of: DocumentId) =>
    openDocument(product.deps, await prove(product, token, address), { token, document: of });

  test('a person whose way by a domain closed later is listed from then on, not who uses their link', async () => {
    const { deps, ida, clock } = product;
    const paper = await protect(product, await drawing(1), 'Rudder');
    const now = deps.clock.now();
    const own = await dispatch(product, [paper], ['ada@float.example'], { until: null });
    const terms = { rights: ['read' as const], from: null, until: null, prints: null };
    const toMany = {
      documents: [paper],
      recipients: [],
      terms,
      subject: 'all',
      note: '',
      watermark: [],
      delivery: 'by-hand' as const,
    };
    const { id } = await dispatchDocuments(deps, ida, {
      ...toMany,
      domains: [{ domain: '@float.example' }],
    });
    await revokeGrants(deps, ida, { grants: own.grants.map((grant) => grant.id) });
    expect(Object.values(await rowsOf({ dispatch: own.id }))).toMatchObject([
      { since: null, ways: [{ by: 'domain' }] },
    ]);
    clock.set(now + HOUR);
    const many = await grantRows(deps, ida, { dispatch: id });
    await revokeGrants(deps, ida, { grants: many.map((grant) => grant.id) });
    await openBy(own.tokenOf('ada@float.example'), 'curious@else.example', paper);
    await openBy(many[0]?.link.split('/').at(-1) ?? '', 'bo@float.example', paper);
    expect(Object.values(await rowsOf({ dispatch: own.id }))).toMatchObject([
      { since: now + HOUR, tries: 0, triesByOthers: 1 },
    ]);
    expect(Object.values(await rowsOf({ dispatch: id }))).toMatchObject([
      { kind: 'domain', since: now + HOUR, tries: 0, triesByOthers: 1 },
    ]);
    const { text } = await revocationStatement(deps, ida, { dispatch: own.id });
    expect(text).toContain('has not tried since; others have tried 1 time by what they were sent');
  });

  test('of everyone at a domain that another dispatch still lets in, and of an open link that remains', async () => {
    const { deps, ida } = product;
    const paper = await protect(product, await drawing(1), 'Keel');
    const terms = { rights: ['read' as const], from: null, until: null, prints: null };
    const toMany = {
      documents: [paper],
      recipients: [],
      terms,
      subject: 'all',
      note: '',
      watermark: [],
      delivery: 'by-hand' as const,
    };
    const first = await dispatchDocuments(deps, ida, {
      ...toMany,
      domains: [{ domain: '@float.example' }],
    });
    await dispatchDocuments(deps, ida, { ...toMany, domains: [{ domain: '@float.example' }] });
    await putRule(deps, ida, { way: 'open-link', leave: 'allowed', reason: '', seen: null });
    await dispatchDocuments(deps, ida, { ...toMany, openLink: {} });
    await revokeGrants(deps, ida, {
      grants: (await grantRows(deps, ida, { dispatch: first.id })).map((grant) => grant.id),
    });
    const page = await viewAfterRevocation(deps, ida, { dispatch: first.id });
    expect(page.rows).toMatchObject([{ kind: 'domain', since: null, ways: [{ by: 'domain' }] }]);
    expect(page.openLinks).toMatchObject([{ title: 'Keel' }]);
  });
});

describe('anyone who may not take it back', () => {
  test('is not offered to: what an administrator revoked, only an administrator reinstates', async () => {
    const { deps, ida } = product;
    const nils: StaffActor = {
      ...ida,
      id: 'stf_n1ls0000000000000000',
      name: 'Nils Fenn',
      role: 'sender',
    };
    await deps.db.write(async (tx) => {
      await insertStaff(
        tx,
        { id: nils.id, name: nils.name, email: 'nils@tern-quill.example', role: 'sender' },
        START,
      );
      await setFiled(tx, [document], { deputyId: nils.id });
    });
    const offered = (await viewAfterRevocation(deps, ida, { document })).rows.flatMap(
      ({ undo }) => undo,
    );
    expect(offered).not.toEqual([]);
    expect(
      (await viewAfterRevocation(deps, nils, { document })).rows.flatMap(({ undo }) => undo),
    ).toEqual([]);
    await expect(reinstateGrants(deps, nils, { grants: offered })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
  });
});

describe('after a document was revoked', () => {
  test('everybody is listed until it is reinstated; nothing is undone once its key is destroyed', async () => {
    await revokeDocument(product.deps, product.ida, { id: document, reason: 'Wrong drawing' });
    const rows = await rowsOf({ document });
    expect(Object.keys(rows).sort()).toEqual([
      'jon@works.example',
      'mira@yard.example',
      'una@class.example',
    ]);
    expect(rows['una@class.example']).toMatchObject({
      ways: [],
      reason: 'Wrong drawing',
      since: product.deps.clock.now(),
      undo: [],
    });
    expect(rows['mira@yard.example']?.undo).toHaveLength(1);
    await reinstateDocument(product.deps, product.ida, { id: document });
    expect(Object.keys(await rowsOf({ document })).sort()).toEqual([
      'jon@works.example',
      'mira@yard.example',
    ]);
    await destroyKey(product.deps, product.ida, {
      id: document,
      typed: (await viewAfterRevocation(product.deps, product.ida, { document })).about.reference,
    });
    const page = await viewAfterRevocation(product.deps, product.ida, { document });
    expect([page.keyDestroyed, page.rows.flatMap(({ undo }) => undo)]).toEqual([true, []]);
  });
});
