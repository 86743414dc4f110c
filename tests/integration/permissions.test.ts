// Every route and action there is, found in the code, tried with each role.
import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { POWERS, ROLES, holds, type Permission, type Role } from '@/core/policy/permissions';
import type { Caller } from '@/server/http/handle';
import { startProduct, type Product } from '../support/product';
import { PASSWORD, joinStaff } from '../support/staff';

// Routes touch neither; both need the framework around them.
vi.mock('next/navigation', () => ({ unstable_rethrow: () => undefined }));
vi.mock('next/headers', () => ({}));

type Route = ((
  request: Request,
  context: { readonly params: Promise<Record<string, string>> },
) => Promise<Response>) & { readonly openTo?: Caller };

const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;
const filesNamed = (folder: string, name: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((file) => path.basename(file) === name)
    .map((file) => path.join(folder, file));

const routes: { readonly name: string; readonly method: string; readonly route: Route }[] = [];
for (const file of filesNamed('src/app', 'route.ts')) {
  const module = (await import(pathToFileURL(path.resolve(file)).href)) as Record<
    string,
    Route | undefined
  >;
  for (const method of METHODS) {
    const route = module[method];
    if (route !== undefined)
      routes.push({
        name: `${method} ${path.dirname(file).replace('src/app', '')}`,
        method,
        route,
      });
  }
}

let product: Product;
const cookies = new Map<Role, string>();

beforeAll(async () => {
  product = await startProduct();
  Object.assign(globalThis, { embargoContainer: Promise.resolve(product.container) });
  for (const role of ROLES) {
    const { email } = await joinStaff(product, role);
    const set = await product.container.identity.signIn(
      email,
      PASSWORD,
      new Headers({ 'x-embargo-network': '192.0.2.10' }),
    );
    cookies.set(role, set?.map((cookie) => cookie.split(';')[0]).join('; ') ?? '');
  }
});
afterAll(async () => {
  Object.assign(globalThis, { embargoContainer: undefined });
  await product.close();
});

async function statusOf(
  { method, route }: { readonly method: string; readonly route: Route },
  cookie: string,
): Promise<number> {
  // Names that lead nowhere: anyone who is let through gets "not found" or "please check", never a change.
  const params = Promise.resolve({ id: 'none', licence: 'none', page: '1' });
  const headers = { origin: product.deps.publicUrl, 'content-type': 'application/json', cookie };
  const response = await route(
    new Request(`${product.deps.publicUrl}/api`, {
      method,
      headers,
      ...(method === 'GET' || method === 'DELETE' ? {} : { body: '{}' }),
    }),
    { params },
  );
  await response.body?.cancel();
  return response.status;
}

/**
 * The status where it says who may not, or that something broke; `null` for every answer of a route
 * that let the caller in.
 */
function refusalOf(status: number): number | null {
  return [401, 403, 500].includes(status) ? status : null;
}

test('there are routes, and each says who may call it', () => {
  expect(routes.length).toBeGreaterThan(20);
  expect(routes.filter(({ route }) => route.openTo === undefined).map(({ name }) => name)).toEqual(
    [],
  );
});

test('every power is asked for by some route or page', () => {
  const asked = new Set<Caller | undefined>([
    ...routes.map(({ route }) => route.openTo),
    ...filesNamed('src/app', 'page.tsx').map(
      (file) =>
        /loadForStaff\('([a-z-]+)'/.exec(readFileSync(file, 'utf8'))?.[1] as Permission | undefined,
    ),
  ]);
  expect(POWERS.filter((power) => !asked.has(power))).toEqual([]);
});

test('every staff page asks for a power before it shows anything', () => {
  const open = filesNamed('src/app/(staff)', 'page.tsx').filter(
    (file) => !/loadForStaff\('[a-z-]+'/.test(readFileSync(file, 'utf8')),
  );
  expect(open).toEqual([path.join('src/app/(staff)', 'not-allowed', 'page.tsx')]);
});

describe.each(routes)('$name', (each) => {
  const caller = each.route.openTo;
  const isRecipient = caller === 'reader' || caller === 'page-reader';
  const isPower = POWERS.some((power) => power === caller);

  test.each(ROLES)('answers a signed-in %s as their role has it', async (role) => {
    // Signing out would end the session that the other routes are tried with.
    if (each.name.endsWith('/sign-out')) return;
    const refusal = isRecipient ? 401 : isPower && !holds(role, caller as Permission) ? 403 : null;
    expect(refusalOf(await statusOf(each, cookies.get(role) ?? ''))).toBe(refusal);
  });

  test('lets nobody in who is not signed in', async () => {
    expect(refusalOf(await statusOf(each, ''))).toBe(caller === 'stranger' ? null : 401);
  });
});
