// What needs somebody today, from what really happened.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { openDocument } from '@/server/services/reading/open-document';
import { viewToday } from '@/server/services/overview/view-today';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';

let product: Product;
beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});

test('an empty product asks for nothing', async () => {
  expect(await viewToday(product.deps, product.ida)).toMatchObject({
    refused: [],
    ending: [],
    silent: [],
    undelivered: [],
  });
});

test('refusals, ends, silence and lost mail stand on it, each once, and go when they are dealt with', async () => {
  const { deps, ida, clock } = product;
  const document = await protect(product, await drawing(1));
  const sent = await dispatch(
    product,
    [document],
    ['reads@x.example', 'silent@x.example', 'cut@x.example'],
    { until: START + 10 * DAY },
  );
  await deliverMail(deps);
  const open = async (address: string) =>
    openDocument(deps, await prove(product, sent.tokenOf(address), address), {
      token: sent.tokenOf(address),
      document,
    });
  await open('reads@x.example');
  await revokeGrants(deps, ida, {
    grants: sent.grants
      .filter((grant) => grant.address === 'cut@x.example')
      .map((grant) => grant.id),
  });
  await open('cut@x.example');
  await open('cut@x.example');
  expect(await viewToday(deps, product.ida)).toMatchObject({
    refused: [{ who: 'cut@x.example', reason: 'revoked', times: 2, title: 'Lines plan' }],
    ending: [],
    // Two days are too few to call it silence.
    silent: [{ why: 'nothing-yet', people: ['silent@x.example'], mayMail: false }],
  });

  clock.set(START + 5 * DAY);
  expect(await viewToday(deps, product.ida)).toMatchObject({
    ending: [{ people: 2, until: START + 10 * DAY }],
    silent: [{ why: 'silent', people: ['silent@x.example'], mayMail: true }],
  });
  // Somebody else’s dispatch is not theirs to mail again.
  const sender = {
    ...product.ida,
    id: 'stf_00000000000000000009' as const,
    role: 'sender' as const,
  };
  expect((await viewToday(deps, sender, { of: 'others' })).silent).toMatchObject([
    { mayMail: false },
  ]);
  expect((await viewToday(deps, { ...product.ida, role: 'auditor' })).silent).toMatchObject([
    { mayMail: false },
  ]);
  await open('silent@x.example');
  expect((await viewToday(deps, product.ida)).silent).toEqual([]);

  clock.set(START + 11 * DAY);
  expect(await viewToday(deps, product.ida)).toMatchObject({ refused: [], ending: [], silent: [] });
});

test('a stranger with a forwarded link is named by the address they proved', async () => {
  const { deps } = product;
  const document = await protect(product, await drawing(1));
  const sent = await dispatch(product, [document], ['wanted@x.example'], { until: null });
  await openDocument(
    deps,
    await prove(product, sent.tokenOf('wanted@x.example'), 'curious@y.example'),
    { token: sent.tokenOf('wanted@x.example'), document },
  );
  expect((await viewToday(deps, product.ida)).refused).toMatchObject([
    { who: 'curious@y.example', recipientId: null, reason: 'not-addressed', title: 'Lines plan' },
  ]);
});

test('a sender has a Today of their own; what is others’ stands apart; no address gives them more', async () => {
  const { deps, ida } = product;
  const sender = { ...ida, id: 'stf_00000000000000000009' as const, role: 'sender' as const };
  const mine = await viewToday(deps, sender);
  expect(mine).toMatchObject({
    of: 'own',
    choices: ['own', 'others'],
    refused: [],
    ending: [],
    silent: [],
    undelivered: [],
    elsewhere: [],
    requests: [],
  });
  const others = await viewToday(deps, sender, { of: 'others' });
  expect(others).toMatchObject({ of: 'others', recorded: false, refused: [], elsewhere: [] });
  expect(await viewToday(deps, sender, { of: 'all' })).toMatchObject({ of: 'own' });
  // Of the administrator who sent all of it, everything is their own.
  const all = await viewToday(deps, ida);
  expect(all).toMatchObject({ of: 'all', choices: ['all', 'own', 'others'] });
  const own = await viewToday(deps, ida, { of: 'own' });
  expect([own.refused, own.silent, own.ending]).toEqual([all.refused, all.silent, all.ending]);
  expect(all.refused.length).toBeGreaterThan(0);
  expect(await viewToday(deps, ida, { of: 'others' })).toMatchObject({
    refused: [],
    silent: [],
    ending: [],
  });
  expect(await viewToday(deps, { ...ida, role: 'auditor' })).toMatchObject({
    of: 'all',
    choices: ['all'],
  });
});
