// Signing in with a second factor, and the fresh proof that is asked for before what reaches far.
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { Secret, TOTP } from 'otpauth';
import { eq } from 'drizzle-orm';
import { MINUTE } from '@/core/base/time';
import { staff, staffSessions } from '@/server/db/schema/staff';
import { POST as revokeScope } from '@/app/api/v1/access/revoke/route';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { changeStaff } from '@/server/services/staff/manage-staff';
import {
  confirmFactor,
  offerFactor,
  proveAgain,
  removeFactor,
} from '@/server/services/staff/prove-staff';
import { signIn } from '@/server/services/staff/sign-in';
import type { StaffActor } from '@/server/services/base/deps';
import { startProduct, type Product } from '../support/product';
import { PASSWORD, joinStaff } from '../support/staff';

vi.mock('next/navigation', () => ({ unstable_rethrow: () => undefined }));
vi.mock('next/headers', () => ({}));

let product: Product;
let nils: StaffActor;
let round = 0;

beforeAll(async () => {
  product = await startProduct();
  Object.assign(globalThis, { embargoContainer: Promise.resolve(product.container) });
});
afterAll(async () => {
  Object.assign(globalThis, { embargoContainer: undefined });
  await product.close();
});
beforeEach(async () => {
  nils = await joinStaff(product, 'administrator', `nils${String(++round)}`);
});

const codeAt = (secret: string, moment: number): string =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: moment });
const enter = (code?: string, password = PASSWORD) =>
  signIn(
    product.deps,
    product.container.identity,
    nils.from,
    new Headers({ 'x-embargo-network': '192.0.2.10' }),
    { email: nils.email, password, ...(code === undefined ? {} : { code }) },
  );
async function setUpFactor(): Promise<string> {
  const { secret, seal } = await offerFactor(product.deps, nils);
  await confirmFactor(product.deps, nils, {
    secret,
    seal,
    code: codeAt(secret, Date.now() - 30_000),
  });
  return secret;
}

describe('a second factor', () => {
  test('is asked for after the right password only, and each code works once', async () => {
    const secret = await setUpFactor();
    await expect(enter(undefined, 'not the password at all')).rejects.toMatchObject({
      code: 'NOT_SIGNED_IN',
    });
    await expect(enter()).rejects.toMatchObject({ code: 'NEEDS_CODE' });
    await expect(enter('000000')).rejects.toMatchObject({ code: 'NEEDS_CODE' });
    const code = codeAt(secret, Date.now());
    expect(await enter(code)).not.toEqual([]);
    await expect(enter(code)).rejects.toMatchObject({ code: 'NEEDS_CODE' });
  });

  test('is kept wrapped, and only where a code proves that the app has it', async () => {
    const { secret, seal } = await offerFactor(product.deps, nils);
    await expect(
      confirmFactor(product.deps, nils, { secret, seal, code: '000000' }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    await expect(
      confirmFactor(product.deps, nils, {
        secret: 'A'.repeat(32),
        seal,
        code: codeAt('A'.repeat(32), Date.now()),
      }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    await confirmFactor(product.deps, nils, { secret, seal, code: codeAt(secret, Date.now()) });
    const [row] = await product.deps.db.read.select().from(staff).where(eq(staff.id, nils.id));
    expect(row?.factor?.includes(Buffer.from(secret))).toBe(false);
  });

  test('that was lost is taken off by another administrator, which ends every session', async () => {
    await setUpFactor();
    await changeStaff(product.deps, product.ida, { id: nils.id, factor: false });
    expect(await enter()).not.toEqual([]);
  });
});

describe('what reaches far', () => {
  const request = (cookie: string): Request =>
    new Request(`${product.deps.publicUrl}/api/v1/access/revoke`, {
      method: 'POST',
      headers: { origin: product.deps.publicUrl, 'content-type': 'application/json', cookie },
      body: JSON.stringify({ scope: { kind: 'organisation', organisation: 'Nobody' } }),
    });
  const tryRevoke = async (cookie: string) => {
    const response = await revokeScope(request(cookie), { params: Promise.resolve({}) });
    return {
      status: response.status,
      body: (await response.json()) as { readonly error?: { readonly code: string } },
    };
  };

  test('needs a proof of the last ten minutes, which the password gives', async () => {
    const cookie = (await enter()).map((each) => each.split(';')[0]).join('; ');
    expect(await tryRevoke(cookie)).toMatchObject({ status: 200 });
    await product.deps.db.write((tx) =>
      tx
        .update(staffSessions)
        .set({ createdAt: new Date(Date.now() - 11 * MINUTE) })
        .where(eq(staffSessions.userId, nils.id)),
    );
    expect(await tryRevoke(cookie)).toMatchObject({
      status: 403,
      body: { error: { code: 'PROVE_AGAIN' } },
    });
    const [session] = await product.deps.db.read
      .select({ id: staffSessions.id })
      .from(staffSessions)
      .where(eq(staffSessions.userId, nils.id));
    const actor = { ...nils, session: session?.id ?? '' };
    await expect(
      proveAgain(product.deps, product.container.identity, actor, { password: 'a wrong password' }),
    ).rejects.toMatchObject({ code: 'INVALID' });
    expect(await tryRevoke(cookie)).toMatchObject({ status: 403 });
    await proveAgain(product.deps, product.container.identity, actor, { password: PASSWORD });
    expect(await tryRevoke(cookie)).toMatchObject({ status: 200 });
  });

  test('many grants at once, and taking a factor off, count among it', async () => {
    const stale = { ...nils, proven: false };
    await expect(
      revokeGrants(product.deps, stale, {
        grants: Array.from({ length: 26 }, (_, i) => `grt_${String(i)}` as const),
      }),
    ).rejects.toMatchObject({ code: 'PROVE_AGAIN' });
    await expect(removeFactor(product.deps, stale)).rejects.toMatchObject({ code: 'PROVE_AGAIN' });
  });
});
