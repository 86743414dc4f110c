// PDFs that nobody here made, through the whole path on the server.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import sharp from 'sharp';
import { openDocument } from '@/server/services/reading/open-document';
import { keepDocument, printDocument } from '@/server/services/reading/take-copies';
import { readText, renderPage } from '@/server/services/reading/read-pages';
import { dispatch, protect, prove, startProduct, whole, type Product } from '../support/product';
import { realDocument, withBrokenTable } from '../support/real-documents';

const documents = [
  { name: 'a manual of 311 pages', bytes: realDocument('gnuplot'), pages: 311, says: 'gnuplot' },
  {
    name: 'an introduction full of pictures',
    bytes: realDocument('intro'),
    pages: 4,
    says: 'Paperwork',
  },
  {
    name: 'a guide whose cross-reference table is broken',
    bytes: withBrokenTable(realDocument('usage')),
    pages: 25,
    says: 'Paperwork',
  },
];

let product: Product;
beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});

async function opened(bytes: Uint8Array, address: string) {
  const document = await protect(product, bytes, address);
  const { tokenOf } = await dispatch(product, [document], [address], {
    rights: ['read', 'copy', 'print', 'keep'],
  });
  const reader = await prove(product, tokenOf(address), address);
  const result = await openDocument(product.deps, reader, { token: tokenOf(address), document });
  if (result.outcome === 'refused') throw new Error(result.reason);
  return { reader, licence: result.licence, pages: result.pages };
}

function granted<T extends object>(result: T): Exclude<T, { outcome: 'refused' }> {
  if ('outcome' in result && result.outcome === 'refused') throw new Error('refused');
  return result as Exclude<T, { outcome: 'refused' }>;
}

describe.each(
  documents.map((each, i) => ({ ...each, address: `reader.${String(i)}@ferrow.example` })),
)('$name', ({ bytes, pages, says, address }) => {
  let open: Awaited<ReturnType<typeof opened>>;
  beforeAll(async () => {
    open = await opened(bytes, address);
  });

  test('has as many pages as it has, and shows the first and the last', async () => {
    expect(open.pages).toBe(pages);
    for (const page of [1, pages]) {
      const picture = granted(
        await renderPage(product.deps, open.reader, { licence: open.licence, page, width: 900 }),
      );
      const { channels } = await sharp(picture.bytes).stats();
      // Neither white nor black: something is drawn.
      expect(channels[0]?.stdev).toBeGreaterThan(5);
    }
  });

  test('gives its text to those who may copy', async () => {
    const { runs } = granted(
      await readText(product.deps, open.reader, { licence: open.licence, page: 1 }),
    );
    expect(
      runs
        .map(({ text }) => text)
        .join(' ')
        .toLowerCase(),
    ).toContain(says.toLowerCase());
  });

  test('makes a print rendition of pictures, and a kept copy that is still the document', async () => {
    const print = granted(
      await printDocument(product.deps, open.reader, { licence: open.licence, from: 2, to: 3 }),
    );
    const kept = granted(await keepDocument(product.deps, open.reader, { licence: open.licence }));
    const [printed, copy] = await Promise.all([
      opened(await whole(print), `p.${address}`),
      opened(await whole(kept), `k.${address}`),
    ]);
    expect(printed.pages).toBe(2);
    expect(
      granted(await readText(product.deps, printed.reader, { licence: printed.licence, page: 1 }))
        .runs,
    ).toEqual([]);
    expect(copy.pages).toBe(pages);
    expect(
      granted(await readText(product.deps, copy.reader, { licence: copy.licence, page: 1 })).runs
        .length,
    ).toBeGreaterThan(0);
  });
});
