// People who are added before anything is sent, several at once, by hand or by a list, with groups.
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { DocumentId, GroupId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { grantRows } from '@/server/services/access/grant-rows';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { addToPeople } from '@/server/services/people/add-to-people';
import {
  importPeople,
  previewPeople,
  takePeopleOut,
} from '@/server/services/people/exchange-people';
import { putGroup, viewGroupAddresses } from '@/server/services/people/manage-groups';
import { changePerson, listPeople } from '@/server/services/people/manage-people';
import { joinStaff } from '../support/staff';
import { START, drawing, protect, startProduct, type Product } from '../support/product';

let product: Product;
let document: DocumentId;
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(1));
});
afterAll(async () => {
  await product.close();
});

const person = (address: string, name = '', organisation = '') => ({ address, name, organisation });
const inGroup = async (id: GroupId) =>
  (await viewGroupAddresses(product.deps, product.ida, { id })).addresses;
const found = async (q: string) =>
  (await listPeople(product.deps, product.ida, { q })).rows.map(({ address }) => address);
const bring = (text: string) => importPeople(product.deps, product.ida, text, () => undefined);
/** A group to which something was sent as such. */
async function groupWithDispatch(name: string) {
  const { id } = await putGroup(product.deps, product.ida, { id: null, name });
  const sent = await dispatchDocuments(product.deps, product.ida, {
    documents: [document],
    recipients: [],
    groups: [{ id }],
    terms: { rights: ['read'], from: null, until: START + 9 * DAY, prints: null },
    subject: name,
    note: '',
    watermark: [],
    delivery: 'by-hand',
  });
  return { id, sent };
}

test('several are added at once into a new group; what is known of somebody stays', async () => {
  await addToPeople(product.deps, product.ida, {
    people: [person('mira@yard.example', 'Mira', 'Ferrow')],
    group: null,
  });
  const added = await addToPeople(product.deps, product.ida, {
    people: [
      person('mira@yard.example', 'Another', 'Another'),
      person('jonas@yard.example'),
      person('jonas@yard.example', 'Jonas Feld'),
    ],
    group: { name: 'Bidders' },
  });
  expect(added).toMatchObject({ added: 1, known: 1 });
  expect(await found('Mira')).toEqual(['mira@yard.example']);
  expect(await found('Another')).toEqual([]);
  expect(await found('Jonas Feld')).toEqual(['jonas@yard.example']);
  expect(await inGroup(added.group ?? 'grp_')).toEqual(['jonas@yard.example', 'mira@yard.example']);
});

test('into a group that something was sent to as such: they are given it; else nobody is given anything', async () => {
  const { id, sent } = await groupWithDispatch('Surveyors');
  await addToPeople(product.deps, product.ida, {
    people: [person('siv@class.example')],
    group: { id },
  });
  const grants = await grantRows(product.deps, product.ida, { dispatch: sent.id });
  expect(grants.map(({ address }) => address)).toContain('siv@class.example');
});

test('nothing is added where the group is gone or its name is taken', async () => {
  const people = [person('lost@yard.example')];
  for (const group of [{ id: 'grp_00000000000000000000' as const }, { name: 'bidders' }])
    await expect(addToPeople(product.deps, product.ida, { people, group })).rejects.toThrow();
  expect(await found('lost@')).toEqual([]);
});

test('a list brings identifiers and groups, says what joining gives, and goes out as it came in', async () => {
  const { sent } = await groupWithDispatch('Board');
  const text =
    'email,name,identifier,groups\n' +
    'nora@harbour.example,Nora,H-7,Board; Port office\nper@harbour.example,Per,H-8,\n';
  const preview = await previewPeople(product.deps, product.ida, { text });
  expect(preview.groups).toEqual([
    { name: 'Board', isNew: false, joining: 1, live: 1 },
    { name: 'Port office', isNew: true, joining: 1, live: 0 },
  ]);
  await bring(text);
  expect(await found('H-7')).toEqual(['nora@harbour.example']);
  const grants = await grantRows(product.deps, product.ida, { dispatch: sent.id });
  expect(grants.map(({ address }) => address)).toContain('nora@harbour.example');
  const again = await previewPeople(product.deps, product.ida, { text });
  expect(again).toMatchObject({ groups: [], added: 0, changed: 0, same: 2 });
  for (const format of ['csv', 'ldif', 'vcard'] as const) {
    const out = await takePeopleOut(product.deps, product.ida, { format });
    const back = await previewPeople(product.deps, product.ida, { text: out.text });
    expect(back).toMatchObject({ groups: [], added: 0, changed: 0, problems: 0 });
  }
});

test('an identifier is one person’s, by hand and by a list', async () => {
  const { rows } = await listPeople(product.deps, product.ida, { q: 'per@' });
  const id = rows[0]?.id ?? 'rcp_';
  await expect(changePerson(product.deps, product.ida, { id, ownId: 'H-7' })).rejects.toMatchObject(
    { problem: 'own-id-taken' },
  );
  await changePerson(product.deps, product.ida, { id, ownId: 'H-9' });
  expect(await found('H-9')).toEqual(['per@harbour.example']);
  await bring('email,identifier\nnew@harbour.example,H-9\n');
  expect(await found('H-9')).toEqual(['per@harbour.example']);
  expect(await found('new@')).toEqual(['new@harbour.example']);
});

test('a sender names nobody whom others added, and names their own', async () => {
  const nils = await joinStaff(product, 'sender', 'nils-who-names');
  const add = (actor: typeof nils, address: string, name: string) =>
    addToPeople(product.deps, actor, { people: [person(address, name)], group: null });
  await add(product.ida, 'owned@yard.example', '');
  await add(nils, 'owned@yard.example', 'The director');
  expect(await found('The director')).toEqual([]);
  await add(nils, 'own@yard.example', '');
  await add(nils, 'own@yard.example', 'Own Name');
  expect(await found('Own Name')).toEqual(['own@yard.example']);
});
