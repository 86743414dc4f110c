// Lists that the server puts in order: every column of theirs, both ways, and on behind any row.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { listPeopleInput } from '@/contracts/people';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import {
  DOCUMENT_ORDERS,
  PEOPLE_ORDERS,
  splitOrder,
  type DocumentOrder,
  type OrderBy,
  type PeopleOrder,
} from '@/core/base/order';
import { listDocumentRows } from '@/server/repositories/documents/document-repository';
import { listPeopleRows } from '@/server/repositories/people/people-repository';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { listDocuments } from '@/server/services/documents/list-documents';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { putMarking } from '@/server/services/filing/manage-filing';
import { blockPerson, listPeople } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import { dispatch, drawing, protect, prove, startProduct, type Product } from '../support/product';

let product: Product;
const TITLES = ['beam', 'Anchor', 'Cable', 'anchor chain', 'Deck', 'Engine'];

beforeAll(async () => {
  product = await startProduct();
  const { deps, ida } = product;
  const ids: DocumentId[] = [];
  for (const [i, title] of TITLES.entries()) {
    ids.push(await protect(product, await drawing(1 + (i % 3)), title));
    product.clock.set(product.clock.now() + 60_000);
  }
  const { id } = await putMarking(deps, ida, { id: null, name: 'Bidders', meaning: '' });
  await fileDocuments(deps, ida, { documents: ids.slice(0, 2), markingId: id });
  const [first, second, third] = ids;
  if (first === undefined || second === undefined || third === undefined) throw new Error('none');
  const { tokenOf } = await dispatch(product, [first, second], ['ann@b.example', 'cas@a.example']);
  await dispatch(product, [first], ['bea@a.example']);
  await dispatch(product, [third], ['zoe@c.example']);
  for (const address of ['ann@b.example', 'cas@a.example']) {
    const reader = await prove(product, tokenOf(address), address);
    await openDocument(deps, reader, { token: tokenOf(address), document: first });
    product.clock.set(product.clock.now() + 60_000);
  }
  await revokeDocument(deps, ida, { id: second });
  const { rows } = await listPeople(deps, ida, { q: 'bea' });
  const bea = rows[0]?.id ?? 'rcp_';
  await blockPerson(deps, ida, { id: bea, blocked: true });
});
afterAll(async () => {
  await product.close();
});

type Value = string | number | null;
/** In order, what lacks a value last, whichever way round; letters as SQLite compares them. */
function isOrdered(values: readonly Value[], down: boolean): boolean {
  const key = (value: Value) => (typeof value === 'string' ? value.toLowerCase() : (value ?? 0));
  const firstNull = values.indexOf(null);
  const known = firstNull === -1 ? values : values.slice(0, firstNull);
  const rest = firstNull === -1 ? [] : values.slice(firstNull);
  return (
    rest.every((value) => value === null) &&
    known.every((value, i) => {
      const next = known[i + 1];
      if (next === undefined) return true;
      return down ? key(value) >= key(next) : key(value) <= key(next);
    })
  );
}

/** Pages of so many rows, one behind the other, by their ids. */
async function paged<Id>(
  page: (after: Id | undefined) => Promise<readonly { readonly id: Id }[]>,
): Promise<Id[]> {
  const ids: Id[] = [];
  for (;;) {
    const rows = await page(ids.at(-1));
    ids.push(...rows.map(({ id }) => id));
    if (rows.length === 0) return ids;
  }
}

const bothWays = <C extends string>(orders: readonly C[]): OrderBy<C>[] =>
  orders.flatMap((order) => [order, `-${order}` as const]);

describe('documents', () => {
  type Row = Awaited<ReturnType<typeof listDocumentRows>>[number];
  const valueOf: Record<DocumentOrder, (row: Row) => Value> = {
    title: (row) => row.title,
    reference: (row) => row.reference,
    marking: (row) => row.marking,
    owner: (row) => row.ownerName,
    pages: (row) => row.pages,
    bytes: (row) => row.bytes,
    people: (row) => row.people,
    opens: (row) => row.opens,
    protectedAt: (row) => row.protectedAt,
    state: (row) => (row.revokedAt !== null ? 2 : row.people > 0 || row.unknown === 1 ? 1 : 0),
  };

  test.each(bothWays(DOCUMENT_ORDERS))('by %s, whole and in parts', async (sort) => {
    const order = splitOrder(sort);
    const { read } = product.deps.db;
    const all = await listDocumentRows(read, {}, { limit: 100, order });
    expect(all).toHaveLength(TITLES.length);
    expect(isOrdered(all.map(valueOf[order.by]), order.down)).toBe(true);
    expect(new Set(all.map(valueOf[order.by])).size).toBeGreaterThan(order.by === 'owner' ? 0 : 1);
    for (const limit of [1, 2, 5])
      expect(
        await paged<DocumentId>((after) => listDocumentRows(read, {}, { limit, after, order })),
      ).toEqual(all.map(({ id }) => id));
  });

  test('letters of either case stand together, and the rest goes on where a row is gone', async () => {
    const { deps, ida } = product;
    const { rows } = await listDocuments(deps, ida, { q: '', sort: 'title' });
    expect(rows.map(({ title }) => title)).toEqual([
      'Anchor',
      'anchor chain',
      'beam',
      'Cable',
      'Deck',
      'Engine',
    ]);
    // A row that is not there any more begins the list anew; it never loses any.
    const again = await listDocuments(deps, ida, { q: '', sort: 'title', after: 'doc_gone' });
    expect(again.rows).toHaveLength(TITLES.length);
  });
});

describe('people', () => {
  type Row = Awaited<ReturnType<typeof listPeopleRows>>[number];
  const valueOf: Record<PeopleOrder, (row: Row) => Value> = {
    name: (row) => (row.name === '' ? row.address : row.name),
    organisation: (row) => (row.organisation === '' ? null : row.organisation),
    documents: (row) => row.documents,
    live: (row) => (row.blocked ? 0 : row.live),
    opens: (row) => row.opens,
    lastOpen: (row) => row.lastOpen,
  };

  test.each(bothWays(PEOPLE_ORDERS))('by %s, whole and in parts', async (sort) => {
    const order = splitOrder(sort);
    const { db, clock } = product.deps;
    const now = clock.now();
    const all = await listPeopleRows(db.read, {}, now, { limit: 100, order });
    expect(all).toHaveLength(4);
    expect(isOrdered(all.map(valueOf[order.by]), order.down)).toBe(true);
    for (const limit of [1, 3])
      expect(
        await paged<RecipientId>((after) =>
          listPeopleRows(db.read, {}, now, { limit, after, order }),
        ),
      ).toEqual(all.map(({ id }) => id));
  });

  test('who never opened anything comes last, whichever way round', async () => {
    const { deps, ida } = product;
    for (const sort of ['lastOpen', '-lastOpen'] as const) {
      const { rows } = await listPeople(deps, ida, { q: '', sort });
      expect(rows.map(({ lastOpen }) => lastOpen === null)).toEqual([false, false, true, true]);
    }
  });

  test('what is no column of the list is no order of it', () => {
    expect(listPeopleInput.safeParse({ sort: '-opens' }).success).toBe(true);
    expect(listPeopleInput.safeParse({ sort: 'address' }).success).toBe(false);
    expect(listPeopleInput.safeParse({ sort: 'opens; DROP TABLE people' }).success).toBe(false);
  });
});
