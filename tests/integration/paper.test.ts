// Copies on paper: counted as they are made, entered in a register, given back where a print failed.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { DocumentId, LicenceId } from '@/core/base/ids';
import type { ReaderActor, StaffActor } from '@/server/services/base/deps';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { openDocument } from '@/server/services/reading/open-document';
import { notePaper, paperRegister } from '@/server/services/reading/paper-register';
import { printDocument } from '@/server/services/reading/take-copies';
import { ContentError } from '@/core/pages/errors';
import { joinStaff } from '../support/staff';
import {
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
let mira: ReaderActor;
let licence: LicenceId;
let other: StaffActor;
let reference: string;

beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(3), 'Frames');
  const sent = await dispatch(product, [document], ['mira@x.example'], {
    rights: ['read', 'print'],
    prints: 3,
  });
  const token = sent.tokenOf('mira@x.example');
  mira = await prove(product, token, 'mira@x.example');
  const result = await openDocument(product.deps, mira, { token, document });
  if (result.outcome !== 'granted') throw new Error(result.reason);
  licence = result.licence;
  other = await joinStaff(product, 'sender');
  reference = (await findDocument(product.deps.db.read, document))?.document.reference ?? '';
});
afterAll(async () => {
  await product.close();
});

const print = () => printDocument(product.deps, mira, { licence, from: 1, to: 2 });
const register = async () =>
  (await paperRegister(product.deps, product.ida, { id: document })).copies;
const note = (copies: Parameters<typeof notePaper>[2]['copies'], state: 'failed' | 'out') =>
  notePaper(product.deps, product.ida, { id: document, copies, state, note: '' });

describe('a copy on paper', () => {
  test('is entered with its number, whose it is and of which pages', async () => {
    const made = await print();
    expect(made).toMatchObject({ outcome: 'made', name: `${reference} copy 1.pdf` });
    if (made.outcome === 'made') await whole(made);
    expect(await register()).toMatchObject([
      { number: 1, address: 'mira@x.example', from: 1, to: 2, state: 'out', version: 1 },
    ]);
  });

  test('is noted as collected or destroyed by who answers for the document, and by nobody else', async () => {
    const [copy] = await register();
    if (copy === undefined) throw new Error('no copy');
    const asked = {
      id: document,
      copies: [copy.id],
      state: 'destroyed' as const,
      note: 'shredded at the yard',
    };
    await expect(notePaper(product.deps, other, asked)).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    await expect(paperRegister(product.deps, other, { id: document })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    await notePaper(product.deps, product.ida, asked);
    expect(await register()).toMatchObject([{ state: 'destroyed', note: 'shredded at the yard' }]);
    // That it is destroyed gives nothing back: it was made.
    const [noted] = (await listEntries(product.deps.db.read, {}, 20)).filter(
      ({ entry }) => entry.action === 'print.noted',
    );
    expect(noted?.entry.details).toEqual({ copy: 1, was: 'out', now: 'destroyed' });
    expect(JSON.stringify(noted?.entry)).not.toContain('shredded');
  });

  test('whose print failed is given back once, however often that is noted at once', async () => {
    expect((await print()).outcome).toBe('made');
    expect((await print()).outcome).toBe('made');
    expect(await print()).toMatchObject({ outcome: 'refused', reason: 'prints-used-up' });
    const [newest] = await register();
    if (newest === undefined) throw new Error('no copy');
    await Promise.all(Array.from({ length: 20 }, () => note([newest.id], 'failed')));
    expect(await print()).toMatchObject({ outcome: 'made', name: `${reference} copy 4.pdf` });
    expect(await print()).toMatchObject({ outcome: 'refused', reason: 'prints-used-up' });
    // It turned up after all: it counts again.
    await note([newest.id], 'out');
    const again = (await register()).find(({ number }) => number === 4);
    if (again === undefined) throw new Error('no copy');
    await note([again.id], 'failed');
    expect(await print()).toMatchObject({ outcome: 'refused', reason: 'prints-used-up' });
    await note([again.id], 'out');
  });

  test('of which nothing could be made is given back by the product itself', async () => {
    const newest = (await register()).slice(0, 2);
    await note(
      newest.map(({ id }) => id),
      'failed',
    );
    const broken = {
      ...product.deps,
      renderer: {
        ...product.deps.renderer,
        run: () => Promise.reject(new ContentError('PDF_TOO_DEMANDING')),
      },
    };
    await expect(printDocument(broken, mira, { licence, from: 1, to: 1 })).rejects.toMatchObject({
      code: 'PDF_TOO_DEMANDING',
    });
    expect((await register())[0]).toMatchObject({ state: 'failed', notedBy: null });
    expect((await print()).outcome).toBe('made');
  });

  test('of another document is not noted by the way of this one', async () => {
    const elsewhere = await protect(product, await drawing(1), 'Elsewhere');
    const [copy] = await register();
    if (copy === undefined) throw new Error('no copy');
    await expect(
      notePaper(product.deps, product.ida, {
        id: elsewhere,
        copies: [copy.id],
        state: 'failed',
        note: '',
      }),
    ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  });
});
