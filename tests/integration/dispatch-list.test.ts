// The list of dispatches is found by what one remembers of a dispatch, and each state is true.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { listDispatchesInput, type ListDispatchesInput } from '@/contracts/dispatch-list';
import { closeMailbox } from '@/server/services/demo/close-mailbox';
import { viewDispatches } from '@/server/services/dispatching/list-dispatches';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { takeReports } from '@/server/services/mailing/take-reports';
import { changePerson } from '@/server/services/people/manage-people';
import { grantRows } from '@/server/services/access/grant-rows';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { openDocument } from '@/server/services/reading/open-document';
import { askForMore } from '@/server/services/requests/ask-for-more';
import { dropView, keepView } from '@/server/services/staff/saved-views';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';
import { joinStaff } from '../support/staff';

let product: Product;
let lines: DocumentId;
let weights: DocumentId;
type Sent = Awaited<ReturnType<typeof dispatch>>;
let first: Sent;
let second: Sent;
let third: Sent;

beforeAll(async () => {
  product = await startProduct();
  lines = await protect(product, await drawing(1), 'Lines plan');
  weights = await protect(product, await drawing(2), 'Weight list');
  first = await dispatch(product, [lines], ['mira@yard.example'], { until: START + 90 * DAY });
  product.clock.set(START + 3 * DAY);
  second = await dispatch(product, [weights], ['siv@class.example']);
  product.clock.set(START + 6 * DAY);
  third = await dispatch(product, [lines, weights], ['per@harbour.example']);
});
afterAll(async () => {
  await product.close();
});

const found = async (filter: Partial<ListDispatchesInput>) => {
  const { rows } = await viewDispatches(product.deps, product.ida, { q: '', ...filter });
  return rows.map(({ id }) => id);
};

test('by a recipient, an organisation, a document, a sender and the days of sending', async () => {
  const [grant] = await grantRows(product.deps, product.ida, { dispatch: second.id });
  const recipient = grant?.recipientId ?? 'rcp_';
  await changePerson(product.deps, product.ida, {
    id: recipient,
    name: 'Siv Strand',
    organisation: 'Class North',
  });
  expect(await found({})).toEqual([third.id, second.id, first.id]);
  expect(await found({ q: 'siv str' })).toEqual([second.id]);
  expect(await found({ q: 'MIRA@yard' })).toEqual([first.id]);
  expect(await found({ q: 'weight' })).toEqual([third.id, second.id]);
  expect(await found({ q: '%' })).toEqual([]);
  expect(await found({ recipient })).toEqual([second.id]);
  expect(await found({ organisation: 'Class North' })).toEqual([second.id]);
  expect(await found({ document: lines })).toEqual([third.id, first.id]);
  expect(await found({ sender: product.ida.id })).toHaveLength(3);
  expect(await found({ sender: 'stf_00000000000000000000' })).toEqual([]);
  const day = (at: number) => new Date(at).toISOString().slice(0, 10);
  expect(await found({ to: day(START + 3 * DAY) })).toEqual([second.id, first.id]);
  expect(await found({ from: day(START + 3 * DAY) })).toEqual([third.id, second.id]);
  expect(await found({ document: lines, q: 'per@' })).toEqual([third.id]);
});

test('by where it stands: opened or not, over, asked about, not delivered', async () => {
  const token = first.tokenOf('mira@yard.example');
  const mira = await prove(product, token, 'mira@yard.example');
  await openDocument(product.deps, mira, { token, document: lines });
  expect(await found({ state: 'never-opened' })).toEqual([third.id, second.id]);
  const reason = 'For the loft';
  await askForMore(product.deps, mira, {
    token,
    document: lines,
    right: 'print',
    until: null,
    reason,
  });
  expect(await found({ state: 'asked' })).toEqual([first.id]);
  const grants = await grantRows(product.deps, product.ida, { dispatch: second.id });
  await revokeGrants(product.deps, product.ida, {
    grants: grants.map(({ id }) => id),
    reason: '',
  });
  expect(await found({ state: 'over' })).toEqual([second.id]);
  expect(await found({ state: 'active' })).toEqual([third.id, first.id]);
  const address = 'gone@harbour.example';
  await closeMailbox(product.deps, product.ida, { address, closed: true });
  const lost = await dispatch(product, [lines], [address]);
  await deliverMail(product.deps);
  expect(await found({ state: 'not-delivered' })).toEqual([]);
  await takeReports(product.deps);
  expect(await found({ state: 'not-delivered' })).toEqual([lost.id]);
});

test('an address that was typed wrong shows the whole list rather than nothing', () => {
  const parsed = listDispatchesInput.parse({
    state: 'lost',
    from: 'Tuesday',
    sender: 'x',
    q: ' a ',
  });
  expect(parsed).toEqual({ q: 'a' });
});

test('its views are apart from those of the ledger, and everybody’s own', async () => {
  const { deps, ida } = product;
  const view = { place: 'dispatches', name: 'To the yards', query: 'q=yard' } as const;
  const { id } = await keepView(deps, ida, view);
  await keepView(deps, ida, { ...view, place: 'ledger', query: 'kind=opened' });
  const views = async () => (await viewDispatches(deps, ida, { q: '' })).views;
  expect(await views()).toEqual([{ id, name: 'To the yards', query: 'q=yard' }]);
  const nils = await joinStaff(product, 'sender', 'nils-of-views');
  await dropView(deps, nils, { id });
  expect(await views()).toHaveLength(1);
  await dropView(deps, ida, { id });
  expect(await views()).toEqual([]);
});
