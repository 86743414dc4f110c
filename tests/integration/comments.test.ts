// Remarks on pages: who may make them, who sees them, where they stay, and that they are sealed.
import { PDFArray, PDFDict, PDFDocument, PDFHexString, PDFName } from '@cantoo/pdf-lib';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { DocumentId, LicenceId } from '@/core/base/ids';
import { comments } from '@/server/db/schema/reading';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import type { ReaderActor, StaffActor } from '@/server/services/base/deps';
import { exportComments } from '@/server/services/comments/export-comments';
import {
  changeOwnComment,
  makeComment,
  readComments,
} from '@/server/services/comments/recipient-comments';
import {
  answerComment,
  changeCommentAsStaff,
  chooseSeenBy,
  documentComments,
} from '@/server/services/comments/staff-comments';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { openDocument } from '@/server/services/reading/open-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { joinStaff } from '../support/staff';
import {
  dispatch,
  drawing,
  isOnDisk,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';

let product: Product;
let document: DocumentId;
let sent: Awaited<ReturnType<typeof dispatch>>;
let other: StaffActor;

const SAID = 'The frame at 42 should be thicker, as agreed in Kelder.';
const POINT = { kind: 'point', left: 2_000, top: 3_000 } as const;
const AREA = { kind: 'area', box: { left: 1_000, top: 1_000, width: 2_000, height: 500 } } as const;

type Reading = { readonly reader: ReaderActor; readonly licence: LicenceId };

async function openAs(
  address: string,
  { of, token = of.tokenOf(address) }: { readonly of: typeof sent; readonly token?: string },
): Promise<Reading> {
  const reader = await prove(product, token, address);
  const result = await openDocument(product.deps, reader, { token, document });
  if (result.outcome !== 'granted') throw new Error(result.reason);
  return { reader, licence: result.licence };
}

async function seenBy({ reader, licence }: Reading) {
  const result = await readComments(product.deps, reader, { licence });
  if ('outcome' in result) throw new Error(result.reason);
  return result.comments;
}

const make = (
  { reader, licence }: Reading,
  text: string,
  place: typeof POINT | typeof AREA = POINT,
) => makeComment(product.deps, reader, { licence, page: 2, place, text, answers: null });

let mira: Reading;
let per: Reading;

beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing());
  sent = await dispatch(product, [document], ['mira@x.example', 'per@x.example'], {
    rights: ['read', 'comment'],
  });
  mira = await openAs('mira@x.example', { of: sent });
  per = await openAs('per@x.example', { of: sent });
  other = await joinStaff(product, 'sender');
});
afterAll(async () => {
  await product.close();
});

describe('a comment', () => {
  test('is made where the right is given, and refused where it is not', async () => {
    await make(mira, SAID);
    expect(await seenBy(mira)).toMatchObject([{ page: 2, text: SAID, own: true, place: POINT }]);
    const reading = await dispatch(product, [document], ['lena@x.example']);
    const lena = await openAs('lena@x.example', { of: reading });
    expect(await make(lena, 'And this')).toMatchObject({
      outcome: 'refused',
      reason: 'not-given',
    });
    expect(await seenBy(lena)).toEqual([]);
  });

  test('is nowhere on the disk in the clear, and opens for no other comment', async () => {
    expect(isOnDisk(product.folder, Buffer.from(SAID))).toBe(false);
    await make(mira, 'Something else');
    const [one, two] = await product.deps.db.read.select().from(comments);
    await product.deps.db.write((tx) =>
      tx
        .update(comments)
        .set({ body: one?.body ?? Buffer.alloc(0) })
        .where(eq(comments.id, two?.id ?? 'cmt_')),
    );
    expect((await seenBy(mira)).map(({ text }) => text)).toEqual([SAID, null]);
    await changeOwnComment(product.deps, mira.reader, {
      licence: mira.licence,
      comment: two?.id ?? 'cmt_',
      change: { removed: true },
    });
    expect(await seenBy(mira)).toHaveLength(1);
  });

  test.each([
    ['a page that is not there', { page: 9 }],
    ['a thread of somebody else', { answers: 'cmt_00000000000000000000' as const }],
  ])('on %s is refused, and nothing is kept', async (_what, change) => {
    await expect(
      makeComment(product.deps, mira.reader, {
        licence: mira.licence,
        page: 1,
        place: POINT,
        text: 'x',
        answers: null,
        ...change,
      }),
    ).rejects.toMatchObject({ name: 'ServiceError' });
    expect(await seenBy(mira)).toHaveLength(1);
  });
});

test('an answer stands where its thread does, in the record too, whatever page was asked for', async () => {
  const [thread] = await seenBy(mira);
  await makeComment(product.deps, mira.reader, {
    licence: mira.licence,
    page: 1,
    place: AREA,
    text: 'On which page?',
    answers: thread?.id ?? null,
  });
  const answer = (await seenBy(mira)).find(({ text }) => text === 'On which page?');
  expect(answer).toMatchObject({ page: 2, place: POINT });
  const made = (await listEntries(product.deps.db.read, {}, 20)).find(
    ({ entry }) => entry.action === 'comment.made',
  );
  expect(made?.entry.details).toMatchObject({ comment: answer?.id, page: 2 });
  await changeOwnComment(product.deps, mira.reader, {
    licence: mira.licence,
    comment: answer?.id ?? 'cmt_',
    change: { removed: true },
  });
});

describe('who sees it', () => {
  test('are its maker and the staff, until the owner chooses everybody', async () => {
    await make(per, 'Per was here', AREA);
    expect((await seenBy(per)).map(({ text }) => text)).toEqual(['Per was here']);
    const all = await documentComments(product.deps, product.ida, { id: document });
    expect(all.comments.map(({ by }) => by)).toEqual(['mira@x.example', 'per@x.example']);
    await expect(documentComments(product.deps, other, { id: document })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    await chooseSeenBy(product.deps, product.ida, { id: document, seenBy: 'everybody' });
    expect(await seenBy(per)).toHaveLength(2);
    await chooseSeenBy(product.deps, product.ida, { id: document, seenBy: 'makers' });
    expect(await seenBy(per)).toHaveLength(1);
  });

  test('what staff answer comes to who asked, who cannot change it', async () => {
    const [thread] = await seenBy(mira);
    await answerComment(product.deps, product.ida, {
      id: document,
      answers: thread?.id ?? 'cmt_',
      text: 'It is 12 mm now.',
    });
    const seen = await seenBy(mira);
    expect(seen[1]).toMatchObject({ by: 'Ida Roe', byStaff: true, answers: thread?.id });
    expect(await seenBy(per)).toHaveLength(1);
    for (const change of [{ text: 'No.' }, { removed: true }] as const)
      await expect(
        changeOwnComment(product.deps, mira.reader, {
          licence: mira.licence,
          comment: seen[1]?.id ?? 'cmt_',
          change,
        }),
      ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });

  test('nobody changes what somebody else said; whoever answers for it settles a thread', async () => {
    const [own] = await seenBy(per);
    const comment = own?.id ?? 'cmt_';
    await expect(
      changeOwnComment(product.deps, mira.reader, {
        licence: mira.licence,
        comment,
        change: { text: 'Mira was here' },
      }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
    await expect(
      changeCommentAsStaff(product.deps, product.ida, {
        id: document,
        comment,
        change: { text: 'Ida was here' },
      }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await changeCommentAsStaff(product.deps, product.ida, {
      id: document,
      comment,
      change: { resolved: true },
    });
    expect((await seenBy(per))[0]?.resolvedAt).not.toBeNull();
  });
});

describe('comments leave', () => {
  test('as JSON, and as annotations in a PDF that others read', async () => {
    const json = await exportComments(product.deps, product.ida, { id: document, as: 'json' });
    const body = JSON.parse(Buffer.from(json.bytes).toString()) as {
      readonly comments: readonly { readonly text: string }[];
    };
    expect(body.comments.map(({ text }) => text)).toEqual([
      SAID,
      'Per was here',
      'It is 12 mm now.',
    ]);
    const { bytes } = await exportComments(product.deps, product.ida, { id: document, as: 'pdf' });
    const page = (await PDFDocument.load(bytes)).getPage(1);
    const annotations = page.node.lookup(PDFName.of('Annots'), PDFArray);
    const found = annotations.asArray().map((_each, i) => annotations.lookup(i, PDFDict));
    expect(found.map((each) => String(each.get(PDFName.of('Subtype'))))).toEqual([
      '/Text',
      '/Square',
      '/Text',
    ]);
    expect(found[0]?.lookup(PDFName.of('Contents'), PDFHexString).decodeText()).toBe(SAID);
    expect(found[1]?.lookup(PDFName.of('T'), PDFHexString).decodeText()).toBe('per@x.example');
    await expect(
      exportComments(product.deps, other, { id: document, as: 'json' }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  });
});

test('they stay for the owner when access has ended, and end with the key', async () => {
  const grant = sent.grants.find(({ address }) => address === 'mira@x.example');
  await revokeGrants(product.deps, product.ida, { grants: [grant?.id ?? 'grt_'], reason: 'over' });
  expect(await make(mira, 'One more')).toMatchObject({ outcome: 'refused', reason: 'revoked' });
  const all = await documentComments(product.deps, product.ida, { id: document });
  expect(all.comments[0]?.text).toBe(SAID);
  await destroyKey(product.deps, product.ida, {
    id: document,
    typed: grant?.documentReference ?? '',
    reason: 'over',
  });
  const after = await documentComments(product.deps, product.ida, { id: document });
  expect(after.comments.map(({ text }) => text)).toEqual([null, null, null]);
});
