import { afterAll, beforeAll, expect, test } from 'vitest';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { importPeople } from '@/server/services/people/exchange-people';
import {
  giveLacking,
  giveTo,
  viewLacking,
  viewUnreached,
} from '@/server/services/dispatching/give-lacking';
import { blockPerson } from '@/server/services/people/manage-people';
import { decideFor } from '@/server/services/policy/decide-access';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { DAY } from '@/core/base/time';
import { setWay } from '../support/rules';

let product: Product;
let papers: DocumentId[];
let person: RecipientId;
const terms = { rights: ['read' as const], from: null, until: START + 30 * DAY, prints: null };
const lacking = (q = '') => viewLacking(product.deps, product.ida, { id: person, q });

beforeAll(async () => {
  product = await startProduct();
  const bytes = await drawing(1);
  papers = [];
  for (const title of ['Lines plan', 'Weight list', 'Tender schedule', 'Old drawing'])
    papers.push(await protect(product, bytes, title));
  await importPeople(
    product.deps,
    product.ida,
    'email,name\nnew@yard.example,New One\n',
    () => undefined,
  );
  person = (await findRecipientByAddress(product.deps.db.read, 'new@yard.example'))?.id ?? 'rcp_';
});
afterAll(() => product.close());

test('a new person is given everything they lack in one act, by a dispatch without mail, and opens it', async () => {
  await revokeDocument(product.deps, product.ida, { id: papers[3] ?? 'doc_' });
  const before = await lacking();
  expect(before.rows.map(({ name, once }) => [name, once]).sort()).toEqual([
    ['Lines plan', null],
    ['Tender schedule', null],
    ['Weight list', null],
  ]);
  expect((await lacking('weight')).rows).toHaveLength(1);
  expect((await lacking('100%')).rows).toHaveLength(0);
  const { given } = await giveLacking(product.deps, product.ida, {
    id: person,
    documents: before.rows.map(({ id }) => id as DocumentId),
    terms,
    watermark: DEFAULT_WATERMARK,
  });
  expect([given, (await lacking()).total]).toEqual([3, 0]);
  const { tokenOf } = await dispatch(product, [papers[0] ?? 'doc_'], ['new@yard.example']);
  const reader = await prove(product, tokenOf('new@yard.example'), 'new@yard.example');
  for (const id of papers.slice(0, 3))
    expect((await decideFor(product.deps, product.deps.db.read, reader, id)).outcome).toBe(
      'granted',
    );
});

test('what was revoked or has ended is lacking again, and says how it ended', async () => {
  const { grants } = await dispatch(
    product,
    [papers[1] ?? 'doc_'],
    ['second@yard.example', 'third@yard.example'],
    { until: START + DAY },
  );
  const [second, third] = grants;
  await revokeGrants(product.deps, product.ida, { grants: [second?.id ?? 'grt_'] });
  const of = async (id: RecipientId | undefined) =>
    (await viewLacking(product.deps, product.ida, { id: id ?? 'rcp_', q: 'weight' })).rows.map(
      ({ once }) => once,
    );
  expect([await of(second?.recipientId), await of(third?.recipientId)]).toEqual([['revoked'], []]);
  product.clock.set(START + 2 * DAY);
  expect(await of(third?.recipientId)).toEqual(['expired']);
});

test('from the other side: who does not hold a document is given it together', async () => {
  const id = papers[2] ?? 'doc_';
  const unreached = (q = '') => viewUnreached(product.deps, product.ida, { id, q });
  await importPeople(
    product.deps,
    product.ida,
    'email,name,organisation\nanna@kelder.example,Anna,Kelder\nbo@kelder.example,Bo,Kelder\n',
    () => undefined,
  );
  expect(
    (await unreached('kelder')).rows.map(({ name, detail, once }) => [name, detail, once]),
  ).toEqual([
    ['Anna', 'anna@kelder.example · Kelder', null],
    ['Bo', 'bo@kelder.example · Kelder', null],
  ]);
  const recipients = (await unreached('kelder')).rows.map((row) => row.id as RecipientId);
  expect(
    await giveTo(product.deps, product.ida, {
      id,
      recipients,
      terms: { ...terms, until: START + 40 * DAY },
      watermark: [],
    }),
  ).toMatchObject({ given: 2 });
  expect((await unreached('kelder')).total).toBe(0);
  expect((await unreached()).rows.some(({ name }) => name === 'New One')).toBe(false);
  await expect(
    giveTo(product.deps, product.ida, {
      id,
      recipients: ['rcp_00000000000000000000'],
      terms,
      watermark: [],
    }),
  ).rejects.toMatchObject({ code: 'NOT_FOUND' });
});

test('where links want a second person it waits for them, and where they are forbidden nothing is given', async () => {
  const {
    grants: [held],
  } = await dispatch(product, [papers[0] ?? 'doc_'], ['late@yard.example']);
  const late = {
    id: held?.recipientId ?? ('rcp_' as const),
    documents: papers.slice(1, 3),
    terms: { ...terms, until: START + 40 * DAY },
    watermark: [],
  };
  const before = (await viewLacking(product.deps, product.ida, { id: late.id, q: '' })).total;
  await setWay(product, 'link', 'agreed');
  expect(await giveLacking(product.deps, product.ida, late)).toMatchObject({ waits: true });
  await setWay(product, 'link', 'forbidden', 'An audit is under way.');
  await expect(giveLacking(product.deps, product.ida, late)).rejects.toMatchObject({
    fields: { way: 'link', reason: 'An audit is under way.' },
  });
  await expect(
    giveTo(product.deps, product.ida, { ...late, id: papers[2] ?? 'doc_', recipients: [late.id] }),
  ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
  expect((await viewLacking(product.deps, product.ida, { id: late.id, q: '' })).total).toBe(before);
  await setWay(product, 'link', 'allowed');
});

test('somebody blocked is given nothing, and a sender sees only what is theirs', async () => {
  const nils = { ...product.ida, id: 'stf_00000000000000000009' as const, role: 'sender' as const };
  expect((await viewLacking(product.deps, nils, { id: person, q: '' })).total).toBe(0);
  await blockPerson(product.deps, product.ida, { id: person, blocked: true });
  await expect(
    giveLacking(product.deps, product.ida, {
      id: person,
      documents: papers.slice(0, 1),
      terms,
      watermark: [],
    }),
  ).rejects.toMatchObject({ code: 'CONFLICT' });
});
