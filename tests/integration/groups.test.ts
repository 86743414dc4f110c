// Groups: who is in one, what it stands for when something is sent, and that leaving it takes nothing.
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { RecipientId } from '@/core/base/ids';
import { blockPerson, listPeople, viewPerson } from '@/server/services/people/manage-people';
import {
  changeMembers,
  putGroup,
  removeGroup,
  viewGroupAddresses,
} from '@/server/services/people/manage-groups';
import { dispatch, drawing, protect, startProduct, type Product } from '../support/product';

let product: Product;
let people: ReadonlyMap<string, RecipientId>;
beforeAll(async () => {
  product = await startProduct();
  const sent = await dispatch(
    product,
    [await protect(product, await drawing(1))],
    ['ann@x.example', 'ben@x.example', 'cas@y.example'],
  );
  people = new Map(sent.grants.map(({ address, recipientId }) => [address, recipientId]));
});
afterAll(async () => {
  await product.close();
});
const idOf = (address: string): RecipientId => people.get(address) ?? 'rcp_';

test('a group stands for anyone who is in it now, and not for who is blocked', async () => {
  const { deps, ida } = product;
  const { id } = await putGroup(deps, ida, { id: null, name: 'Bidders' });
  await changeMembers(deps, ida, {
    id,
    add: [idOf('ann@x.example'), idOf('cas@y.example')],
    remove: [],
  });
  // Twice in is in.
  await changeMembers(deps, ida, { id, add: [idOf('ann@x.example')], remove: [] });
  expect(await viewGroupAddresses(deps, ida, { id })).toEqual({
    addresses: ['ann@x.example', 'cas@y.example'],
  });
  expect(await listPeople(deps, ida, { q: '', group: id })).toMatchObject({
    total: 2,
    groups: [{ name: 'Bidders', people: 2 }],
  });
  expect(await viewPerson(deps, ida, { id: idOf('ann@x.example') })).toMatchObject({
    inGroups: [id],
  });
  await blockPerson(deps, ida, { id: idOf('cas@y.example'), blocked: true });
  expect(await viewGroupAddresses(deps, ida, { id })).toEqual({ addresses: ['ann@x.example'] });
});

test('leaving a group, or doing away with it, takes nothing that was sent', async () => {
  const { deps, ida } = product;
  const { groups } = await listPeople(deps, ida, { q: '' });
  const id = groups[0]?.id ?? 'grp_';
  await changeMembers(deps, ida, { id, add: [], remove: [idOf('ann@x.example')] });
  expect(await viewGroupAddresses(deps, ida, { id })).toEqual({ addresses: [] });
  await removeGroup(deps, ida, { id });
  expect(await viewPerson(deps, ida, { id: idOf('ann@x.example') })).toMatchObject({
    inGroups: [],
    groups: [],
    live: 1,
  });
});

test('names are unique whatever their case, and what is gone or unknown is said', async () => {
  const { deps, ida } = product;
  const { id } = await putGroup(deps, ida, { id: null, name: 'Yards' });
  await expect(putGroup(deps, ida, { id: null, name: 'yards' })).rejects.toMatchObject({
    code: 'CONFLICT',
  });
  expect(await putGroup(deps, ida, { id, name: 'YARDS' })).toEqual({ id });
  await expect(
    changeMembers(deps, ida, { id, add: ['rcp_00000000000000000009'], remove: [] }),
  ).rejects.toMatchObject({ code: 'NOT_FOUND' });
  await removeGroup(deps, ida, { id });
  await expect(changeMembers(deps, ida, { id, add: [], remove: [] })).rejects.toMatchObject({
    code: 'NOT_FOUND',
  });
});
