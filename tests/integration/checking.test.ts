// A stored content whose bytes were harmed is noticed: by the check, by a backup, by anyone who reads,
// and said where it is.
import {
  openSync,
  readFileSync,
  writeFileSync,
  writeSync,
  closeSync,
  existsSync,
  mkdirSync,
  rmSync,
} from 'node:fs';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { versions } from '@/server/db/schema/documents';
import { checkContents } from '@/server/services/documents/check-contents';
import { openDocument } from '@/server/services/reading/open-document';
import { takeProtectedFile } from '@/server/services/documents/protected-files';
import { renderPage } from '@/server/services/reading/read-pages';
import { viewDocument } from '@/server/services/documents/view-document';
import { viewToday } from '@/server/services/overview/view-today';
import { dispatch, drawing, protect, prove, startProduct, type Product } from '../support/product';
import { runCommand } from '../support/command';
import { blobFile } from '../support/blob-file';

let product: Product;
let document: DocumentId;
let other: DocumentId;
beforeEach(async () => {
  product = await startProduct();
  [document, other] = [
    await protect(product, await drawing(12), 'Harmed'),
    await protect(product, await drawing(1), 'Whole'),
  ];
});
afterEach(async () => {
  await product.close();
});

async function blobOf(id: DocumentId): Promise<string> {
  const [row] = await product.deps.db.read
    .select()
    .from(versions)
    .where(eq(versions.documentId, id));
  return blobFile(product, row?.blobKey ?? '');
}
/** Turns twelve bytes over, spread over the file or from `at` on. */
async function harm(id: DocumentId, at?: number): Promise<void> {
  const file = await blobOf(id);
  const bytes = readFileSync(file);
  for (let i = 0; i < 12; i++) {
    const place = at === undefined ? Math.floor((bytes.length * (i + 6)) / 20) : at + i;
    bytes[place] = (bytes[place] ?? 0) ^ 0x55;
  }
  writeFileSync(file, bytes);
}
const check = () => checkContents(product.deps, null, () => undefined);

test('the check finds it, names it, and says so on Today and at the document until it is whole again', async () => {
  expect(await check()).toMatchObject({ contents: 2, damaged: [], dangling: [] });
  const before = readFileSync(await blobOf(document));
  await harm(document);
  expect((await check()).damaged).toMatchObject([{ title: 'Harmed', problem: 'altered' }]);
  expect((await viewDocument(product.deps, product.ida, { id: document })).damaged).toBe(true);
  expect((await viewDocument(product.deps, product.ida, { id: other })).damaged).toBe(false);
  writeFileSync(await blobOf(document), before);
  expect((await check()).damaged).toEqual([]);
  expect((await viewDocument(product.deps, product.ida, { id: document })).damaged).toBe(false);
});

test.each([
  [
    'cut',
    (file: string) => {
      writeFileSync(file, readFileSync(file).subarray(0, 1000));
    },
  ],
  [
    'missing',
    (file: string) => {
      rmSync(file);
    },
  ],
] as const)('one that is %s as well', async (problem, change) => {
  change(await blobOf(document));
  expect((await check()).damaged).toMatchObject([{ title: 'Harmed', problem }]);
});

test('a reader is told a true sentence, whichever part is harmed, and others read on', async () => {
  const sent = await dispatch(product, [document, other], ['mira@yard.example']);
  const token = sent.tokenOf('mira@yard.example');
  const reader = await prove(product, token, 'mira@yard.example');
  const opened = await openDocument(product.deps, reader, { token, document });
  if (opened.outcome === 'refused') throw new Error(opened.reason);
  await harm(document);
  const answers = await Promise.all(
    Array.from({ length: 12 }, (_, i) =>
      renderPage(product.deps, reader, { licence: opened.licence, page: i + 1, width: 300 }).then(
        () => 'drawn',
        (error: unknown) => (error as { code: string }).code,
      ),
    ),
  );
  expect(answers).toContain('CONTENT_DAMAGED');
  expect(new Set(answers).size).toBeLessThanOrEqual(2);
  const fine = await openDocument(product.deps, reader, { token, document: other });
  if (fine.outcome === 'refused') throw new Error(fine.reason);
  expect(
    await renderPage(product.deps, reader, { licence: fine.licence, page: 1, width: 300 }),
  ).toHaveProperty('bytes');
  expect((await viewToday(product.deps, product.ida)).warnings).toMatchObject([
    { code: 'content-damaged', detail: expect.stringContaining('Harmed') as string },
  ]);
  await expect(
    takeProtectedFile(product.deps, product.ida, {
      id: sent.id,
      document,
      recipient: sent.grants[0]?.recipientId ?? 'rcp_',
    }),
  ).rejects.toMatchObject({ code: 'CONFLICT' });
  // The head of the file: nothing can be opened at all.
  await harm(other, 30);
  const elsewhere = await prove(product, token, 'mira@yard.example');
  await expect(
    openDocument(product.deps, elsewhere, { token, document: other }),
  ).rejects.toMatchObject({ code: 'CONTENT_DAMAGED' });
});

test('a backup does not take it along without a word', async () => {
  await harm(document);
  mkdirSync(path.join(product.folder, 'out'));
  const ran = await runCommand(['backup', '--out', path.join(product.folder, 'out', 'b.age')], {
    DATA_DIR: product.folder,
  });
  expect(ran).toMatchObject({
    code: 1,
    err: expect.stringContaining('Harmed is damaged') as string,
  });
  expect(existsSync(path.join(product.folder, 'out', 'b.age'))).toBe(false);
});

test('the command names what is damaged, and goes on where it was cut off', async () => {
  const run = (...args: string[]) => runCommand(['check', ...args], { DATA_DIR: product.folder });
  expect(await run()).toMatchObject({
    code: 0,
    out: expect.stringContaining('2 stored contents read') as string,
  });
  await harm(document);
  expect(await run()).toMatchObject({
    code: 1,
    out: expect.stringContaining('Harmed: its content is not what was stored') as string,
  });
  const ids = (await product.deps.db.read.select().from(versions)).map(({ id }) => id).sort();
  const file = openSync(path.join(product.folder, '.check'), 'w');
  writeSync(file, ids[0] ?? '');
  closeSync(file);
  expect((await run('--resume')).out).toContain('1 stored contents read');
  expect(existsSync(path.join(product.folder, '.check'))).toBe(false);
});
