// Folders, markings, attributes, owners and deputies, and versions of documents.
import { newLayer } from '@/core/watermark/layers';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { PART } from '@/contracts/document';
import type { DocumentId } from '@/core/base/ids';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { listDocuments } from '@/server/services/documents/list-documents';
import { putTerms } from '@/server/services/access/change-saved-terms';
import {
  changeFolder,
  makeFolder,
  putMarking,
  removeFolder,
  removeMarking,
  removeTerms,
  viewFolders,
  viewTerms,
} from '@/server/services/filing/manage-filing';
import { dropView, keepView } from '@/server/services/staff/saved-views';
import { listLedger } from '@/server/services/ledger/list-entries';
import { openDocument } from '@/server/services/reading/open-document';
import { protectDocument, reviseDocument } from '@/server/services/documents/protect-document';
import { renderPage } from '@/server/services/reading/read-pages';
import { receivePart } from '@/server/services/documents/receive-part';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { viewDocument } from '@/server/services/documents/view-document';
import {
  dispatch,
  drawing,
  inPieces,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { joinStaff } from '../support/staff';

let product: Product;
let documents: DocumentId[];
beforeAll(async () => {
  product = await startProduct();
  documents = [];
  for (let i = 0; i < 3; i++)
    documents.push(await protect(product, await drawing(1), `Paper ${String(i)}`));
});
afterAll(async () => {
  await product.close();
});

const shown = async (filter: Partial<Parameters<typeof listDocuments>[2]>) =>
  (await listDocuments(product.deps, product.ida, { q: '', ...filter })).rows
    .map((row) => row.title)
    .sort();

describe('folders', () => {
  test('nest, hold documents, and are found with those below them', async () => {
    const { deps, ida } = product;
    const { id: top } = await makeFolder(deps, ida, { name: 'Hull 412', parentId: null });
    const { id: below } = await makeFolder(deps, ida, { name: 'Tender', parentId: top });
    await fileDocuments(deps, ida, { documents: documents.slice(0, 2), folderId: below });
    await fileDocuments(deps, ida, { documents: documents.slice(2), folderId: top });
    expect(await shown({ folder: below })).toEqual(['Paper 0', 'Paper 1']);
    expect(await shown({ folder: top })).toEqual(['Paper 0', 'Paper 1', 'Paper 2']);
    expect((await viewFolders(deps)).map(({ name, documents: count }) => [name, count])).toEqual([
      ['Hull 412', 3],
      ['Tender', 2],
    ]);
    await expect(makeFolder(deps, ida, { name: 'tender', parentId: top })).rejects.toMatchObject({
      code: 'CONFLICT',
    });
    await expect(changeFolder(deps, ida, { id: top, parentId: below })).rejects.toMatchObject({
      code: 'CONFLICT',
    });
    await expect(removeFolder(deps, ida, { id: below })).rejects.toMatchObject({
      code: 'CONFLICT',
    });
    await changeFolder(deps, ida, { id: below, name: 'Round 1', parentId: null });
    expect(await shown({ folder: top })).toEqual(['Paper 2']);
    const { id: empty } = await makeFolder(deps, ida, { name: 'Empty', parentId: below });
    await removeFolder(deps, ida, { id: empty });
    await expect(fileDocuments(deps, ida, { documents, folderId: empty })).rejects.toMatchObject({
      code: 'NOT_FOUND',
    });
  });
});

describe('markings and attributes', () => {
  test('are the organisation’s own, narrow the list, and stay while anything bears them', async () => {
    const { deps, ida } = product;
    const { id } = await putMarking(deps, ida, {
      id: null,
      name: 'Bidders',
      meaning: 'Until the round closes',
    });
    await expect(
      putMarking(deps, ida, { id: null, name: 'bidders', meaning: '' }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await fileDocuments(deps, ida, { documents: documents.slice(0, 2), markingId: id });
    expect(await shown({ marking: id })).toEqual(['Paper 0', 'Paper 1']);
    await expect(removeMarking(deps, ida, { id })).rejects.toMatchObject({ code: 'CONFLICT' });
    await fileDocuments(deps, ida, { documents, markingId: null });
    await removeMarking(deps, ida, { id });
    expect((await viewTerms(deps)).markings).toEqual([]);
    await fileDocuments(deps, ida, {
      documents: documents.slice(0, 1),
      attributes: { lot: 'North quay' },
    });
    expect(await shown({ q: 'north QUAY' })).toEqual(['Paper 0']);
    await expect(fileDocuments(deps, ida, { documents, attributes: {} })).rejects.toMatchObject({
      code: 'INVALID',
    });
    await expect(fileDocuments(deps, ida, { documents })).rejects.toMatchObject({
      code: 'INVALID',
    });
  });
});

test('a marking that hides titles goes on doing so where it is moved or renamed', async () => {
  const { deps, ida } = product;
  const said = { id: null, name: 'Quiet', meaning: '', hidesTitles: true };
  const { id } = await putMarking(deps, ida, said);
  await putMarking(deps, ida, { id, name: 'Quiet one', meaning: '', up: true });
  const hides = async () =>
    (await viewTerms(deps)).markings.find((each) => each.id === id)?.hidesTitles;
  expect(await hides()).toBe(true);
  await putMarking(deps, ida, { ...said, id, hidesTitles: false });
  expect(await hides()).toBe(false);
  await removeMarking(deps, ida, { id });
});

test('what a marking has said in mail stays where it is moved or renamed, and is on the ledger', async () => {
  const { deps, ida } = product;
  const said = { id: null, name: 'Worded', meaning: '', mailWords: 'For your bid alone.' };
  const { id } = await putMarking(deps, ida, said);
  await putMarking(deps, ida, { id, name: 'Worded anew', meaning: '' });
  const words = async () =>
    (await viewTerms(deps)).markings.find((each) => each.id === id)?.mailWords;
  expect(await words()).toBe('For your bid alone.');
  await putMarking(deps, ida, { ...said, id, mailWords: '' });
  expect(await words()).toBe('');
  await removeMarking(deps, ida, { id });
});

test('a folder says how new documents are marked, until that marking is gone', async () => {
  const { deps, ida } = product;
  const { id: markingId } = await putMarking(deps, ida, { id: null, name: 'Yards', meaning: '' });
  const { id } = await makeFolder(deps, ida, { name: 'To the yards', parentId: null });
  const markingOf = async () => (await viewFolders(deps)).find((each) => each.id === id)?.markingId;
  await changeFolder(deps, ida, { id, markingId });
  expect(await markingOf()).toBe(markingId);
  await changeFolder(deps, ida, { id, name: 'Yards' });
  expect(await markingOf()).toBe(markingId);
  await expect(
    changeFolder(deps, ida, { id, markingId: 'mrk_00000000000000000000' }),
  ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  await removeMarking(deps, ida, { id: markingId });
  expect(await markingOf()).toBeNull();
});

describe('owner and deputy', () => {
  test('both answer for a document; handing it over takes it from neither unseen', async () => {
    const { deps, ida } = product;
    const nils = await joinStaff(product, 'sender', 'nils');
    const vera = await joinStaff(product, 'auditor', 'vera');
    const [document = 'doc_'] = documents;
    await expect(revokeDocument(deps, nils, { id: document })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    await expect(
      fileDocuments(deps, nils, { documents: [document], ownerId: nils.id }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await fileDocuments(deps, ida, { documents: [document], deputyId: nils.id });
    await fileDocuments(deps, nils, { documents: [document], title: 'Paper nought' });
    expect(await listDocuments(deps, nils, { q: '', own: 'true' })).toMatchObject({
      total: 1,
      rows: [{ title: 'Paper nought' }],
    });
    await expect(
      fileDocuments(deps, ida, { documents: [document], ownerId: nils.id }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await expect(
      fileDocuments(deps, ida, { documents: [document], ownerId: vera.id }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    await fileDocuments(deps, ida, {
      documents: [document],
      ownerId: nils.id,
      deputyId: null,
      title: 'Paper 0',
    });
    expect(await viewDocument(deps, ida, { id: document })).toMatchObject({
      ownerName: 'nils',
      filed: { deputyId: null },
    });
  });
});

describe('a new version', () => {
  async function upload(id: DocumentId, pages: number) {
    const bytes = await drawing(pages);
    const { id: upload } = await beginUpload(product.deps, product.ida, {
      fileName: 'next.pdf',
      bytes: bytes.length,
      revises: id,
    });
    await receivePart(
      product.deps,
      product.ida,
      { id: upload, offset: 0 },
      inPieces(bytes.subarray(0, PART)),
    );
    return upload;
  }

  test('opens from then on for everybody who holds access, while an open that goes on keeps its own', async () => {
    const { deps, ida } = product;
    const id = await protect(product, await drawing(2), 'Revised');
    const { tokenOf } = await dispatch(product, [id], ['reader@yard.example']);
    const token = tokenOf('reader@yard.example');
    const reader = await prove(product, token, 'reader@yard.example');
    const first = await openDocument(deps, reader, { token, document: id });
    const upload1 = await upload(id, 5);
    await expect(
      protectDocument(deps, ida, { id: upload1, title: 'No', reference: 'NO-1' }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    expect(await reviseDocument(deps, ida, { id: upload1 })).toEqual({ id, number: 2 });
    if (first.outcome !== 'granted') throw new Error('refused');
    expect(first.pages).toBe(2);
    expect(
      await renderPage(deps, reader, { licence: first.licence, page: 2, width: 400 }),
    ).toMatchObject({ type: 'image/png' });
    const second = await openDocument(deps, reader, { token, document: id });
    expect(second).toMatchObject({ outcome: 'granted', pages: 5 });
    if (second.outcome !== 'granted') throw new Error('refused');
    expect(
      await renderPage(deps, reader, { licence: second.licence, page: 5, width: 400 }),
    ).toMatchObject({ type: 'image/png' });
    expect((await viewDocument(deps, ida, { id })).versions).toMatchObject([
      { number: 2, pages: 5, opens: 1 },
      { number: 1, pages: 2, opens: 1 },
    ]);
    expect(
      (await verifyLedger(deps.db.read, { publicKey: deps.recorder.signer.publicKey })).problems,
    ).toEqual([]);
  });

  test('is taken by nobody else, and not once the key is gone', async () => {
    const { deps, ida } = product;
    const id = await protect(product, await drawing(1), 'Gone');
    const nils = await joinStaff(product, 'sender', 'nils2');
    await expect(
      beginUpload(deps, nils, { fileName: 'x.pdf', bytes: 10, revises: id }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    const late = await upload(id, 1);
    const { reference } = await viewDocument(deps, ida, { id });
    await destroyKey(deps, ida, { id, typed: reference });
    await expect(reviseDocument(deps, ida, { id: late })).rejects.toMatchObject({
      code: 'CONFLICT',
    });
  });
});

test('saved terms and views are chosen by name, replaced, and dropped without a trace in what was sent', async () => {
  const { deps, ida } = product;
  const terms = {
    name: 'A week',
    rights: ['read'] as const,
    days: 7,
    prints: null,
    watermark: [newLayer('tiled', '{name}')],
  };
  const { id } = await putTerms(deps, ida, { id: null, ...terms, rights: ['read'] });
  await expect(
    putTerms(deps, ida, { id: null, ...terms, name: 'a WEEK', rights: ['read'] }),
  ).rejects.toMatchObject({ code: 'CONFLICT' });
  await putTerms(deps, ida, { id, ...terms, days: 14, rights: ['read', 'print'], prints: 2 });
  expect((await viewTerms(deps)).terms).toMatchObject([
    { name: 'A week', days: 14, prints: 2, changedBy: 'Ida Roe' },
  ]);
  await removeTerms(deps, ida, { id });
  await expect(removeTerms(deps, ida, { id })).rejects.toMatchObject({ code: 'NOT_FOUND' });

  await keepView(deps, ida, { place: 'ledger', name: 'Refusals', query: 'kind=refused' });
  const { id: view } = await keepView(deps, ida, {
    place: 'ledger',
    name: 'Refusals',
    query: 'kind=refused&reason=expired',
  });
  expect((await listLedger(deps, ida, {})).views).toMatchObject([
    { name: 'Refusals', query: 'kind=refused&reason=expired' },
  ]);
  const [kept] = (await listLedger(deps, ida, {})).views;
  await dropView(deps, ida, { id: kept?.id ?? view });
  expect((await listLedger(deps, ida, {})).views).toEqual([]);
});
