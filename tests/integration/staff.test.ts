// Colleagues: invited, changed, disabled, with a forgotten password; and what each reaches.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY, HOUR, MINUTE } from '@/core/base/time';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { changeGrants } from '@/server/services/access/change-grants';
import { revokeDocument } from '@/server/services/access/revoke-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import {
  changeStaff,
  choosePassword,
  inviteStaff,
  requestPassword,
  viewStaff,
} from '@/server/services/staff/manage-staff';
import { viewDispatch } from '@/server/services/dispatching/view-dispatch';
import { signIn } from '@/server/services/staff/sign-in';
import {
  START,
  dispatch,
  drawing,
  protect,
  startProduct,
  stranger,
  type Product,
} from '../support/product';
import { PASSWORD, joinStaff, passwordToken } from '../support/staff';

let product: Product;
beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});

const headers = new Headers({ 'x-embargo-network': '192.0.2.10' });
const tryPassword = (email: string, password: string) =>
  signIn(product.deps, product.container.identity, product.ida.from, headers, { email, password });
const choose = (token: string, password = PASSWORD) =>
  choosePassword(product.deps, product.container.identity, product.ida.from, { token, password });

describe('an invitation', () => {
  test('lets its holder choose a password once, and only then sign in', async () => {
    const email = 'nils@tern-quill.example';
    await inviteStaff(product.deps, product.ida, { name: 'Nils', email, role: 'sender' });
    expect(
      (await viewStaff(product.deps, product.ida)).staff.find((row) => row.email === email)?.state,
    ).toBe('invited');
    await expect(tryPassword(email, PASSWORD)).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
    const token = await passwordToken(product, email);
    await choose(token);
    await expect(tryPassword(email, PASSWORD)).resolves.toHaveLength(1);
    await expect(choose(token, 'a third long enough one')).rejects.toMatchObject({
      code: 'NOT_FOUND',
    });
    await expect(
      inviteStaff(product.deps, product.ida, { name: 'Nils', email, role: 'auditor' }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
  });

  test('is over after a week', async () => {
    const email = 'late@tern-quill.example';
    await inviteStaff(product.deps, product.ida, { name: 'Late', email, role: 'auditor' });
    const token = await passwordToken(product, email);
    product.clock.set(START + 7 * DAY + MINUTE);
    await expect(choose(token)).rejects.toMatchObject({ code: 'NOT_FOUND' });
    product.clock.set(START);
  });
});

describe('a forgotten password', () => {
  test('is replaced by mail, ends every session, and an earlier link is worth nothing', async () => {
    const { email, id } = await joinStaff(product, 'sender', 'runa');
    const [cookie = ''] = await tryPassword(email, PASSWORD);
    const session = new Headers({ cookie: cookie.split(';')[0] ?? '' });
    expect(await product.container.identity.whoIs(session)).toMatchObject({ staff: id });
    await requestPassword(product.deps, stranger(), { email });
    const first = await passwordToken(product, email);
    product.clock.set(START + MINUTE);
    await requestPassword(product.deps, stranger(), { email });
    await expect(choose(first)).rejects.toMatchObject({ code: 'NOT_FOUND' });
    await choose(await passwordToken(product, email), 'quite a different password');
    expect(await product.container.identity.whoIs(session)).toBeNull();
    await expect(tryPassword(email, PASSWORD)).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
    await expect(tryPassword(email, 'quite a different password')).resolves.toHaveLength(1);
  });

  test('of nobody on the staff is answered alike, and mails nothing', async () => {
    await expect(
      requestPassword(product.deps, stranger('b', '203.0.113.77'), {
        email: 'nobody@tern-quill.example',
      }),
    ).resolves.toEqual({});
    expect(await passwordToken(product, 'nobody@tern-quill.example')).toBe('');
  });

  test('can be asked for a few times only', async () => {
    const ask = () =>
      requestPassword(product.deps, stranger('c', '203.0.113.78'), {
        email: 'nobody@tern-quill.example',
      });
    const outcomes = await Promise.allSettled(Array.from({ length: 7 }, ask));
    expect(outcomes.filter(({ status }) => status === 'rejected')).toHaveLength(2);
  });

  test('is over after an hour', async () => {
    const { email } = await joinStaff(product, 'auditor', 'sune');
    product.clock.set(START + 2 * HOUR);
    await requestPassword(product.deps, stranger('d', '203.0.113.79'), { email });
    const token = await passwordToken(product, email);
    product.clock.set(START + 3 * HOUR + MINUTE);
    await expect(choose(token)).rejects.toMatchObject({ code: 'NOT_FOUND' });
    product.clock.set(START + 4 * HOUR);
  });
});

describe('a change of a colleague', () => {
  test('ends what they were signed in with, and stands on the ledger with before and after', async () => {
    const { id, email } = await joinStaff(product, 'sender', 'vera');
    const [cookie = ''] = await tryPassword(email, PASSWORD);
    await changeStaff(product.deps, product.ida, { id, role: 'auditor' });
    expect(
      await product.container.identity.whoIs(new Headers({ cookie: cookie.split(';')[0] ?? '' })),
    ).toBeNull();
    const [entry] = await listEntries(product.deps.db.read, {}, 1);
    expect(entry?.entry).toMatchObject({
      action: 'staff.changed',
      details: { staff: id, before: 'sender', after: 'auditor' },
    });
    await changeStaff(product.deps, product.ida, { id, disabled: true });
    await expect(tryPassword(email, PASSWORD)).rejects.toMatchObject({ code: 'NOT_SIGNED_IN' });
    await changeStaff(product.deps, product.ida, { id, disabled: false });
    await expect(tryPassword(email, PASSWORD)).resolves.toHaveLength(1);
  });

  test('never leaves the organisation without an administrator, and is never of oneself', async () => {
    await expect(
      changeStaff(product.deps, product.ida, { id: product.ida.id, disabled: true }),
    ).rejects.toMatchObject({ code: 'CONFLICT' });
    const second = await joinStaff(product, 'administrator', 'tora');
    await changeStaff(product.deps, second, { id: product.ida.id, role: 'sender' });
    await expect(
      changeStaff(product.deps, product.ida, { id: second.id, role: 'sender' }),
    ).rejects.toMatchObject({ problem: 'last-administrator' });
    await changeStaff(product.deps, second, { id: product.ida.id, role: 'administrator' });
  });
});

describe('what a sender reaches', () => {
  test('is what they sent or own; of others nothing is changed, not even a part', async () => {
    const sender = await joinStaff(product, 'sender', 'olin');
    const theirs = { ...product, ida: sender };
    const document = await protect(theirs, await drawing(1));
    const own = await dispatch(theirs, [document], ['a@ferrow.example'], {
      until: START + 60 * DAY,
    });
    const foreignDocument = await protect(product, await drawing(1));
    const foreign = await dispatch(product, [foreignDocument], ['b@ferrow.example'], {
      until: START + 60 * DAY,
    });
    const ids = [...own.grants, ...foreign.grants].map(({ id }) => id);

    await expect(revokeGrants(product.deps, sender, { grants: ids })).rejects.toMatchObject({
      code: 'NOT_ALLOWED',
    });
    expect(
      (await viewDispatch(product.deps, sender, { id: own.id })).grants.map((grant) => [
        grant.revokedAt,
        grant.mayChange,
      ]),
    ).toEqual([[null, true]]);
    expect(
      (await viewDispatch(product.deps, sender, { id: foreign.id })).grants.map(
        (grant) => grant.mayChange,
      ),
    ).toEqual([false]);
    await expect(
      revokeDocument(product.deps, sender, { id: foreignDocument }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await expect(
      dispatch(theirs, [foreignDocument], ['c@ferrow.example'], { until: START + 60 * DAY }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    const [grant] = foreign.grants;
    await expect(
      changeGrants(product.deps, sender, {
        changes: [{ grant: grant?.id ?? 'grt_', revision: 1, until: null }],
      }),
    ).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    await expect(
      revokeGrants(product.deps, sender, { grants: own.grants.map(({ id }) => id) }),
    ).resolves.toEqual({ changed: 1 });
  });
});
