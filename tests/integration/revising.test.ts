// A changed file comes back as a version beside the old one, and opens only once it was accepted.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { MAX_REVISION } from '@/core/content/revision';
import type { DocumentId, LicenceId } from '@/core/base/ids';
import type { ReaderActor, StaffActor } from '@/server/services/base/deps';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { checkPage, textChecked } from '@/server/services/documents/check-document';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { viewDocument } from '@/server/services/documents/view-document';
import { readMailroom } from '@/server/services/demo/read-mailroom';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import {
  answerRevision,
  documentRevisions,
  tellOfVersion,
} from '@/server/services/reading/answer-revision';
import { openDocument } from '@/server/services/reading/open-document';
import { sendRevision } from '@/server/services/reading/send-revision';
import { checkOpen } from '@/server/services/reading/watch-open';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { joinStaff } from '../support/staff';
import {
  dispatch,
  drawing,
  filesIn,
  inPieces,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';

let product: Product;
let document: DocumentId;
let token: string;
let mira: ReaderActor;
let licence: LicenceId;
let per: { readonly actor: ReaderActor; readonly licence: LicenceId };
let other: StaffActor;

const REVISER = ['read', 'copy', 'print', 'keep', 'revise'] as const;

async function openAs(link: string, address: string) {
  const actor = await prove(product, link, address);
  const result = await openDocument(product.deps, actor, { token: link, document });
  if (result.outcome !== 'granted') throw new Error(result.reason);
  return { actor, licence: result.licence, pages: result.pages };
}

beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(2), 'Frames');
  const sent = await dispatch(product, [document], ['mira@x.example'], { rights: [...REVISER] });
  token = sent.tokenOf('mira@x.example');
  ({ actor: mira, licence } = await openAs(token, 'mira@x.example'));
  const reading = await dispatch(product, [document], ['per@x.example']);
  per = await openAs(reading.tokenOf('per@x.example'), 'per@x.example');
  other = await joinStaff(product, 'sender');
});
afterAll(async () => {
  await product.close();
});

/** How often one may send is not what is tried here. */
const unhurried = () => ({
  ...product.deps,
  limits: { ...product.deps.limits, revisions: () => Promise.resolve(0) },
});
const sendBytes = (bytes: Uint8Array, note = '') =>
  sendRevision(
    unhurried(),
    mira,
    { licence, name: 'Frames changed.pdf', note },
    { bytes: bytes.length, body: inPieces(bytes) },
  );
const waiting = async () =>
  (await documentRevisions(product.deps, product.ida, { id: document })).revisions.filter(
    ({ state }) => state === 'waiting',
  );
const current = async () => (await findDocument(product.deps.db.read, document))?.version.number;

describe('a changed file', () => {
  test('is kept beside the document, which opens as before', async () => {
    const result = await sendBytes(await drawing(3), 'Frame 12 moved');
    expect(result).toMatchObject({
      revisions: [{ state: 'waiting', fileName: 'Frames changed.pdf' }],
    });
    expect(await current()).toBe(1);
    expect(await waiting()).toMatchObject([
      {
        number: 2,
        pages: 3,
        basedOn: { number: 1, pages: 2 },
        note: 'Frame 12 moved',
        address: 'mira@x.example',
      },
    ]);
    const detail = await viewDocument(product.deps, product.ida, { id: document });
    expect(detail.versions.map(({ number }) => number)).toEqual([1]);
    expect(detail.waiting).toBe(1);
    expect((await viewDocument(product.deps, other, { id: document })).waiting).toBe(0);
    expect((await openAs(token, 'mira@x.example')).pages).toBe(2);
    await deliverMail(product.deps);
    const { messages } = await readMailroom(product.deps, { address: product.ida.email });
    expect(messages.map(({ subject }) => subject)).toContain(
      'mira@x.example sent a changed file of “Frames” back',
    );
  });

  test('is looked at by who answers for the document, page by page, and by nobody else', async () => {
    const page = await checkPage(product.deps, product.ida, {
      id: document,
      version: 2,
      page: 3,
      width: 400,
    });
    expect(page.width).toBe(400);
    expect(
      (await textChecked(product.deps, product.ida, { id: document, version: 2, page: 1 })).runs
        .length,
    ).toBeGreaterThan(0);
    await expect(
      checkPage(product.deps, other, { id: document, version: 2, page: 1, width: 400 }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await expect(documentRevisions(product.deps, other, { id: document })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    await expect(
      checkPage(product.deps, product.ida, { id: document, version: 9, page: 1, width: 400 }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });

  test('is not taken from those who may not revise', async () => {
    const bytes = await drawing(1);
    const result = await sendRevision(
      product.deps,
      per.actor,
      { licence: per.licence, name: 'x.pdf', note: '' },
      { bytes: bytes.length, body: inPieces(bytes) },
    );
    expect(result).toMatchObject({ outcome: 'refused', reason: 'not-given' });
    // Somebody else's open is not theirs.
    await expect(
      sendRevision(
        product.deps,
        per.actor,
        { licence, name: 'x.pdf', note: '' },
        { bytes: bytes.length, body: inPieces(bytes) },
      ),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });

  test('that is no PDF, is cut off, longer than said or too large leaves nothing behind', async () => {
    const files = () => filesIn(product.folder).length;
    const before = files();
    const bytes = await drawing(1);
    const tries: readonly [Uint8Array, number, string][] = [
      [new TextEncoder().encode('no PDF at all, but text'), 23, 'NOT_A_PDF'],
      [bytes, bytes.length + 10, 'WRONG_LENGTH'],
      [bytes, bytes.length - 10, 'WRONG_LENGTH'],
      [bytes, MAX_REVISION + 1, 'TOO_LARGE'],
      [new Uint8Array(0), 0, 'EMPTY_FILE'],
      [bytes.slice(0, 400), 400, 'PDF_DAMAGED'],
    ];
    for (const [content, said, code] of tries)
      await expect(
        sendRevision(
          unhurried(),
          mira,
          { licence, name: 'x.pdf', note: '' },
          { bytes: said, body: inPieces(content) },
        ),
      ).rejects.toMatchObject({ code });
    expect(files()).toBe(before);
    expect(await waiting()).toHaveLength(1);
  });

  test('is accepted once, however often at once, and opens then by the same link', async () => {
    const [row] = await waiting();
    if (row === undefined) throw new Error('none waits');
    const answer = () =>
      answerRevision(product.deps, product.ida, {
        id: document,
        revision: row.id,
        accept: true,
        words: 'Well seen',
      });
    const answers = await Promise.allSettled(Array.from({ length: 5 }, answer));
    expect(answers.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect(await current()).toBe(2);
    expect((await openAs(token, 'mira@x.example')).pages).toBe(3);
    expect(await checkOpen(product.deps, mira, { licence })).toMatchObject({
      revisions: [{ state: 'accepted', answer: 'Well seen' }],
    });
    const actions = (await listEntries(product.deps.db.read, {}, 30)).map(
      ({ entry }) => entry.action,
    );
    expect(actions).toEqual(
      expect.arrayContaining(['revision.sent', 'revision.answered', 'document.revised']),
    );
    await deliverMail(product.deps);
    const { messages } = await readMailroom(product.deps, { address: 'mira@x.example' });
    expect(messages.map(({ subject }) => subject)).toContain('Your changed file of “Frames”');
  });

  test('that is declined never opens, and its number is not given again', async () => {
    await sendBytes(await drawing(1));
    const [row] = await waiting();
    if (row === undefined) throw new Error('none waits');
    await answerRevision(product.deps, product.ida, {
      id: document,
      revision: row.id,
      accept: false,
      words: '',
    });
    expect(await current()).toBe(2);
    await sendBytes(await drawing(4));
    expect((await waiting()).map(({ number }) => number)).toEqual([4]);
  });

  test('waits with few others: one person cannot fill a disk', async () => {
    for (let i = 0; i < 4; i++) await sendBytes(await drawing(1));
    await expect(sendBytes(await drawing(1))).rejects.toMatchObject({ code: 'CONFLICT' });
  });
});

describe('a new version', () => {
  test('is told of to whoever can open it, once', async () => {
    expect(await tellOfVersion(product.deps, product.ida, { id: document })).toEqual({ people: 2 });
    await expect(tellOfVersion(product.deps, product.ida, { id: document })).rejects.toMatchObject({
      code: 'CONFLICT',
    });
    await expect(tellOfVersion(product.deps, other, { id: document })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    await deliverMail(product.deps);
    const { messages } = await readMailroom(product.deps, { address: 'per@x.example' });
    expect(messages.map(({ subject }) => subject)).toContain(
      '“Frames” was replaced by a new version',
    );
  });
});

test('where access ends while a file comes, nothing of it is kept', async () => {
  const before = filesIn(product.folder).length;
  const bytes = await drawing(2);
  async function* slowly() {
    yield* inPieces(bytes.slice(0, 100));
    await revokeDocument(product.deps, product.ida, { id: document, reason: 'wrong file' });
    yield* inPieces(bytes.slice(100));
  }
  await expect(
    sendRevision(
      unhurried(),
      mira,
      { licence, name: 'late.pdf', note: '' },
      { bytes: bytes.length, body: slowly() },
    ),
  ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  expect(filesIn(product.folder)).toHaveLength(before);
});

test('with the key of the document those of all its changed files go', async () => {
  const typed = (await findDocument(product.deps.db.read, document))?.document.reference ?? '';
  await destroyKey(product.deps, product.ida, { id: document, typed, reason: 'over' });
  await expect(
    checkPage(product.deps, product.ida, { id: document, version: 4, page: 1, width: 400 }),
  ).rejects.toMatchObject({ code: 'NOT_FOUND' });
});
