// What an open is charged to, whose mark it bears, and that a count of one is one: however it is asked for.
import { linesOf, newLayer } from '@/core/watermark/layers';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY, HOUR } from '@/core/base/time';
import type { DocumentId, LicenceId } from '@/core/base/ids';
import { NO_LIMITS } from '@/core/policy/ceiling';
import type { DispatchInput } from '@/contracts/dispatch';
import { licences } from '@/server/db/schema/reading';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import type { ReaderActor } from '@/server/services/base/deps';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { openDocument } from '@/server/services/reading/open-document';
import { passOn } from '@/server/services/access/pass-on';
import { checkOpen } from '@/server/services/reading/watch-open';
import { printDocument } from '@/server/services/reading/take-copies';
import { renderPage } from '@/server/services/reading/read-pages';
import { sharedWith } from '@/server/services/reading/shared-with';
import { START, drawing, protect, prove, startProduct, type Product } from '../support/product';

let product: Product;
let paper: Uint8Array;
let people = 0;
beforeAll(async () => {
  product = await startProduct();
  paper = await drawing(2);
});
afterAll(async () => {
  await product.close();
});

const newPerson = (): string => `reader.${String(people++)}@yard.example`;
const newDocument = (): Promise<DocumentId> => protect(product, paper, 'Shell expansion');

async function send(
  document: DocumentId,
  address: string,
  watermark: string,
  terms: Partial<DispatchInput['terms']> = {},
) {
  const { id } = await dispatchDocuments(product.deps, product.ida, {
    documents: [document],
    recipients: [{ address, name: '', organisation: '' }],
    subject: 'For you',
    note: `The note of ${watermark}`,
    watermark: watermark === '' ? [] : [newLayer('tiled', watermark)],
    delivery: 'by-hand',
    terms: { rights: ['read'], from: null, until: START + 30 * DAY, prints: null, ...terms },
  });
  const [grant] = await grantRows(product.deps, product.ida, { dispatch: id });
  if (grant === undefined) throw new Error('no grant');
  return { id, grant, token: grant.link.split('/').at(-1) ?? '' };
}

async function open(reader: ReaderActor, token: string, document: DocumentId) {
  const opened = await openDocument(product.deps, reader, { token, document });
  if (opened.outcome === 'refused') throw new Error(opened.reason);
  return opened;
}

async function proveFiveTimes(
  token: string,
  address: string,
): Promise<[ReaderActor, ...ReaderActor[]]> {
  const readers: [ReaderActor, ...ReaderActor[]] = [await prove(product, token, address)];
  for (let i = 0; i < 4; i++) readers.push(await prove(product, token, address));
  return readers;
}

async function watermarkOf(licence: LicenceId): Promise<string> {
  const [row] = await product.deps.db.read.select().from(licences).where(eq(licences.id, licence));
  return linesOf(row?.watermark ?? []);
}

const newestEntry = async () =>
  (await listEntries(product.deps.db.read, {}, 5)).find(
    ({ entry }) => entry.action === 'document.opened',
  )?.entry;

test('the watermark is that of the grant charged, whichever link is used; the ledger names the link', async () => {
  const [document, address] = [await newDocument(), newPerson()];
  // The wider grant is charged; the other dispatch has no watermark.
  const marked = await send(document, address, 'MARKED', { rights: ['read', 'copy'] });
  const plain = await send(document, address, '', {});
  const foreign = await send(document, newPerson(), 'FOREIGN');
  for (const { token, id } of [plain, foreign, marked]) {
    const reader = await prove(product, token, address);
    expect(await watermarkOf((await open(reader, token, document)).licence)).toBe('MARKED');
    const entry = await newestEntry();
    expect(entry).toMatchObject({ dispatch: marked.id, grant: marked.grant.id });
    expect(entry?.details).toEqual({
      rights: ['read', 'copy'],
      ...(id === marked.id ? {} : { via: id }),
      ...(id === foreign.id ? { linkOf: foreign.grant.recipientId } : {}),
    });
  }
});

test('a link of another dispatch tells neither its note nor, where it carries another, the document', async () => {
  const [document, other, address] = [await newDocument(), await newDocument(), newPerson()];
  const own = await send(document, address, 'OWN');
  const foreign = await send(document, newPerson(), 'FOREIGN');
  const elsewhere = await send(other, newPerson(), 'ELSEWHERE');
  const reader = await prove(product, own.token, address);
  expect((await sharedWith(product.deps, reader, { token: foreign.token })).note).toBe(
    'The note of OWN',
  );
  expect(
    await openDocument(product.deps, reader, { token: elsewhere.token, document }),
  ).toMatchObject({ outcome: 'refused', reason: 'not-addressed', sender: null });
  expect(await sharedWith(product.deps, reader, { token: elsewhere.token })).toMatchObject({
    documents: [],
    note: '',
  });
});

test('how often it can still be opened is told before one is spent', async () => {
  const [document, address] = [await newDocument(), newPerson()];
  const { token } = await send(document, address, '', { conditions: { opens: 2 } });
  const [one, other] = await proveFiveTimes(token, address);
  const left = async (reader: ReaderActor) => {
    const [shared] = (await sharedWith(product.deps, reader, { token })).documents;
    return shared?.state.open === true ? shared.state.opensLeft : shared?.state;
  };
  expect(await left(one)).toBe(2);
  await open(one, token, document);
  expect(await left(other ?? one)).toBe(1);
  await open(other ?? one, token, document);
  expect(await left(one)).toMatchObject({ open: false, reason: 'opens-used-up' });
});

test('of fifty at once on one open, from as many devices, one is granted', async () => {
  const [document, address] = [await newDocument(), newPerson()];
  const { token } = await send(document, address, '', { conditions: { opens: 1 } });
  const devices = await proveFiveTimes(token, address);
  const [first] = devices;
  const all = await Promise.all(
    Array.from({ length: 50 }, (_, i) =>
      openDocument(product.deps, devices[i % 5] ?? first, { token, document }),
    ),
  );
  const granted = all.flatMap((result) => (result.outcome === 'granted' ? [result.licence] : []));
  expect(new Set(granted).size).toBe(1);
  expect(await product.deps.db.read.$count(licences, eq(licences.documentId, document))).toBe(1);
});

test('of five devices at once where one is allowed, one is let in', async () => {
  const [document, address] = [await newDocument(), newPerson()];
  const { token } = await send(document, address, '', { conditions: { devices: 1 } });
  const readers = await proveFiveTimes(token, address);
  const all = await Promise.all(
    readers.map((reader) => openDocument(product.deps, reader, { token, document })),
  );
  expect(all.filter(({ outcome }) => outcome === 'granted')).toHaveLength(1);
});

test('a double click costs one open, and both tabs read', async () => {
  const [document, address] = [await newDocument(), newPerson()];
  const { token } = await send(document, address, '', { conditions: { opens: 1 } });
  const reader = await prove(product, token, address);
  const [a, b] = await Promise.all([open(reader, token, document), open(reader, token, document)]);
  expect(a.licence).toBe(b.licence);
  for (const { licence } of [a, b])
    expect(await renderPage(product.deps, reader, { licence, page: 1, width: 200 })).toHaveProperty(
      'bytes',
    );
  expect((await open(reader, token, document)).licence).toBe(a.licence);
});

test('of fifty prints at once under a limit of one, set by the grant or by a ceiling, one is made', async () => {
  for (const by of ['grant', 'ceiling'] as const) {
    const [document, address] = [await newDocument(), newPerson()];
    const { token } = await send(document, address, '', {
      rights: ['read', 'print'],
      prints: by === 'grant' ? 1 : null,
    });
    if (by === 'ceiling')
      await putCeiling(product.deps, product.ida, {
        level: 'document',
        subject: document,
        limits: { ...NO_LIMITS, prints: 1 },
        seen: null,
      });
    const reader = await prove(product, token, address);
    const { licence } = await open(reader, token, document);
    const all = await Promise.all(
      Array.from({ length: 50 }, () =>
        printDocument(product.deps, reader, { licence, from: 1, to: 1 }),
      ),
    );
    expect(all.filter(({ outcome }) => outcome === 'made')).toHaveLength(1);
  }
});

test('what was passed on is charged up the chain: opens and prints of those below use up those above', async () => {
  const [document, address, below] = [await newDocument(), newPerson(), newPerson()];
  const { token, grant } = await send(document, address, '', {
    rights: ['read', 'print', 'pass-on'],
    prints: 2,
    conditions: { opens: 2, passOn: { people: 2, domains: null, steps: 1 } },
  });
  const giver = await prove(product, token, address);
  const own = await open(giver, token, document);
  await passOn(product.deps, giver, {
    document,
    address: below,
    rights: ['read', 'print'],
    until: START + DAY,
    note: '',
  });
  const link =
    (await grantRows(product.deps, product.ida, { document }))
      .find((each) => each.address === below)
      ?.link.split('/')
      .at(-1) ?? '';
  const taker = await prove(product, link, below);
  const { licence } = await open(taker, link, document);
  expect(await printDocument(product.deps, taker, { licence, from: 1, to: 1 })).toHaveProperty(
    'outcome',
    'made',
  );
  expect(
    await printDocument(product.deps, giver, { licence: own.licence, from: 1, to: 1 }),
  ).toHaveProperty('outcome', 'made');
  expect(await printDocument(product.deps, taker, { licence, from: 1, to: 1 })).toMatchObject({
    outcome: 'refused',
    reason: 'prints-used-up',
  });
  expect(
    await printDocument(product.deps, giver, { licence: own.licence, from: 1, to: 1 }),
  ).toMatchObject({ outcome: 'refused', reason: 'prints-used-up' });
  // Both opens are used: one by the giver, one by whom it was passed on to.
  expect(
    await openDocument(product.deps, await prove(product, token, address), { token, document }),
  ).toMatchObject({ outcome: 'refused', reason: 'opens-used-up' });
  expect(
    (await grantRows(product.deps, product.ida, { document })).find((each) => each.id === grant.id),
  ).toMatchObject({ printsMade: 2 });
});

test('an open of twelve hours, or whose grant ended beside another, is opened again, not ended', async () => {
  const [document, address] = [await newDocument(), newPerson()];
  const wide = await send(document, address, 'WIDE', { rights: ['read', 'copy'] });
  const narrow = await send(document, address, 'NARROW');
  const reader = await prove(product, narrow.token, address);
  const first = await open(reader, narrow.token, document);
  await revokeGrants(product.deps, product.ida, { grants: [wide.grant.id] });
  expect(await checkOpen(product.deps, reader, first)).toMatchObject({
    outcome: 'refused',
    reason: 'open-again',
  });
  expect(
    await renderPage(product.deps, reader, { licence: first.licence, page: 1, width: 200 }),
  ).toMatchObject({ outcome: 'refused', reason: 'open-again' });
  const second = await open(reader, narrow.token, document);
  expect(await watermarkOf(second.licence)).toBe('NARROW');
  product.clock.set(product.clock.now() + 12 * HOUR);
  expect(await checkOpen(product.deps, reader, second)).toMatchObject({
    outcome: 'refused',
    reason: 'open-again',
  });
  await revokeGrants(product.deps, product.ida, { grants: [narrow.grant.id] });
  expect(await checkOpen(product.deps, reader, second)).toMatchObject({
    outcome: 'refused',
    reason: 'revoked',
  });
});
