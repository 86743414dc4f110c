// What levels set beside their ceilings: beginnings of dispatches and marks on every page, from the
// screens' services to the reader.
import { linesOf, newLayer } from '@/core/watermark/layers';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { DocumentId, FolderId } from '@/core/base/ids';
import { NO_DEFAULTS } from '@/core/policy/defaults';
import { defaultsInput, type DefaultsInput } from '@/contracts/defaults';
import { findLicence } from '@/server/repositories/reading/reader-repository';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { viewUnreached } from '@/server/services/dispatching/give-lacking';
import {
  beginningOf,
  previewDefaults,
  putDefaults,
  viewDefaults,
} from '@/server/services/policy/manage-defaults';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { makeFolder, removeFolder } from '@/server/services/filing/manage-filing';
import { previewFiling } from '@/server/services/filing/preview-filing';
import { openDocument } from '@/server/services/reading/open-document';
import { dispatch, drawing, protect, prove, startProduct, type Product } from '../support/product';

let product: Product;
let filed: DocumentId;
let loose: DocumentId;
let folder: FolderId;
const set = (over: Partial<DefaultsInput>): DefaultsInput => ({
  level: 'folder',
  subject: folder,
  defaults: NO_DEFAULTS,
  watermark: [],
  seen: null,
  ...over,
});
const office = { level: 'organisation', subject: '' } as const;
beforeAll(async () => {
  product = await startProduct();
  [filed, loose] = [
    await protect(product, await drawing(1), 'Filed'),
    await protect(product, await drawing(1), 'Loose'),
  ];
  ({ id: folder } = await makeFolder(product.deps, product.ida, {
    name: 'Tender',
    parentId: null,
  }));
  await fileDocuments(product.deps, product.ida, { documents: [filed], folderId: folder });
});
afterAll(async () => {
  await product.close();
});

async function watermarkOnOpen(
  sent: Awaited<ReturnType<typeof dispatch>>,
  document: DocumentId,
): Promise<string> {
  const token = sent.tokenOf('mira@x.example');
  const opened = await openDocument(product.deps, await prove(product, token, 'mira@x.example'), {
    token,
    document,
  });
  if (opened.outcome !== 'granted') throw new Error('refused');
  const found = await findLicence(product.deps.db.read, opened.licence);
  return linesOf(found?.licence.watermark ?? []);
}

test('dispatches begin with what the nearest level says, wherever they begin', async () => {
  await putDefaults(
    product.deps,
    product.ida,
    set({ ...office, defaults: { rights: ['read', 'print'], days: 60, prints: 2 } }),
  );
  await putDefaults(
    product.deps,
    product.ida,
    set({ defaults: { rights: null, days: 9, prints: null } }),
  );
  expect((await beginningOf(product.deps, [loose])).terms).toMatchObject({
    rights: ['read', 'print'],
    days: 60,
    prints: 2,
  });
  expect((await beginningOf(product.deps, [filed])).terms).toMatchObject({
    rights: ['read', 'print'],
    days: 9,
    prints: 2,
  });
  expect((await beginningOf(product.deps, [loose, filed])).terms.days).toBe(9);
  expect(
    (await viewUnreached(product.deps, product.ida, { id: filed, q: '' })).begin,
  ).toMatchObject({ days: 9 });
});

test('marks of every level stand on the page of the next open; whom that touches is told before', async () => {
  const sent = await dispatch(product, [filed, loose], ['mira@x.example', 'per@x.example']);
  const before = await watermarkOnOpen(sent, filed);
  const seen =
    (await viewDefaults(product.deps)).find(({ level }) => level === 'folder')?.setAt ?? null;
  const asked = set({
    defaults: { rights: null, days: 9, prints: null },
    watermark: [newLayer('tiled', 'Bidders only, {organisation}')],
    seen,
  });
  expect(await previewDefaults(product.deps, product.ida, asked)).toMatchObject({
    pairs: 2,
    people: 2,
    documents: 1,
    other: { people: 2 },
    endNow: { people: 0 },
  });
  expect(await watermarkOnOpen(sent, filed)).toBe(before);
  const { before: was, setAt } = await putDefaults(product.deps, product.ida, asked);
  expect(await watermarkOnOpen(sent, filed)).toBe(`Bidders only, ; ${before}`);
  expect(await watermarkOnOpen(sent, loose)).not.toContain('Bidders');
  await putDefaults(product.deps, product.ida, set({ ...was, seen: setAt }));
  expect(await watermarkOnOpen(sent, filed)).toBe(before);
});

test('what of a default a ceiling takes at once is said beside it', async () => {
  const { setAt } = await putCeiling(product.deps, product.ida, {
    level: 'folder',
    subject: folder,
    limits: { ...NO_LIMITS, rights: ['read'], days: 5, prints: 1 },
    seen: null,
  });
  const asked = set({ defaults: { rights: ['read', 'print'], days: 'no-end', prints: 4 } });
  expect((await previewDefaults(product.deps, product.ida, asked)).idle).toEqual([
    'The right to print has no effect: the ceiling of this folder takes it.',
    'No end has no effect: the ceiling of this folder ends access after 5.',
    'More than 1 prints has no effect: the ceiling of this folder allows no more.',
  ]);
  expect(
    (
      await previewDefaults(
        product.deps,
        product.ida,
        set({ defaults: { rights: ['read'], days: 5, prints: null } }),
      )
    ).idle,
  ).toEqual([]);
  await putCeiling(product.deps, product.ida, {
    level: 'folder',
    subject: folder,
    limits: NO_LIMITS,
    seen: setAt,
  });
});

test('nothing is set over what somebody else set meanwhile, and nothing contradictory', async () => {
  await expect(
    putDefaults(product.deps, product.ida, set({ watermark: [newLayer('tiled', 'X')] })),
  ).rejects.toMatchObject({ code: 'CONFLICT' });
  await expect(
    putDefaults(
      product.deps,
      product.ida,
      set({ level: 'marking', subject: 'mrk_none', watermark: [newLayer('tiled', 'X')] }),
    ),
  ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  expect(
    defaultsInput.safeParse(set({ defaults: { rights: ['read', 'keep'], days: 1, prints: null } }))
      .error?.issues[0]?.message,
  ).toMatch(/keep/);
  expect(defaultsInput.safeParse(set({ watermark: [newLayer('tiled', '{nobody}')] })).success).toBe(
    false,
  );
  expect(
    defaultsInput.safeParse(
      set({ watermark: Array.from({ length: 4 }, () => newLayer('tiled', 'x')) }),
    ).success,
  ).toBe(false);
});

test('what a folder sets goes with it', async () => {
  await fileDocuments(product.deps, product.ida, { documents: [filed], folderId: null });
  await removeFolder(product.deps, product.ida, { id: folder });
  expect((await viewDefaults(product.deps)).map(({ level }) => level)).toEqual(['organisation']);
});

test('filing otherwise says before whom it would touch, by ceilings and marks, and changes nothing', async () => {
  const paper = await protect(product, await drawing(1), 'To be moved');
  const { id: strict } = await makeFolder(product.deps, product.ida, {
    name: 'Strict',
    parentId: null,
  });
  const { id: marked } = await makeFolder(product.deps, product.ida, {
    name: 'Marked',
    parentId: null,
  });
  await putCeiling(product.deps, product.ida, {
    level: 'folder',
    subject: strict,
    limits: { ...NO_LIMITS, days: 3 },
    seen: null,
  });
  await putDefaults(
    product.deps,
    product.ida,
    set({ subject: marked, watermark: [newLayer('tiled', 'Seen here')] }),
  );
  await dispatch(product, [paper], ['mira@x.example', 'per@x.example']);
  const preview = (folderId: FolderId | null) =>
    previewFiling(product.deps, product.ida, { documents: [paper], folderId });
  expect(await preview(strict)).toMatchObject({
    pairs: 2,
    people: 2,
    documents: 1,
    endSooner: { people: 2 },
  });
  expect(await preview(marked)).toMatchObject({
    pairs: 2,
    other: { people: 2 },
    endSooner: { people: 0 },
  });
  expect(await preview(null)).toMatchObject({ pairs: 0 });
  await fileDocuments(product.deps, product.ida, { documents: [paper], folderId: strict });
  expect(await preview(null)).toMatchObject({ pairs: 2, endLater: { people: 2 } });
});
