// Parts of the interface by themselves: as somebody of the staff sees them, over answers that a test gives.
import type { ReactNode } from 'react';
import { cleanup, render } from '@testing-library/react';
import userEvent, { type UserEvent } from '@testing-library/user-event';
import { afterEach, vi } from 'vitest';
import type { ApiRoute } from '@/contracts/api';
import type { Role } from '@/core/policy/permissions';
import { QueryProvider } from '@/ui/http/query-provider';
import { RoleProvider } from '@/ui/shell/permissions';

/** What the server answers to a route: a body, or a refusal. */
export type Answer =
  | ((input: Readonly<Record<string, unknown>>) => unknown)
  | { readonly status: number; readonly error: Readonly<Record<string, unknown>> };

/** One call that a part made: its route and what it sent. */
export type Call = { readonly route: string; readonly input: Readonly<Record<string, unknown>> };

export type Shown = { readonly user: UserEvent; readonly calls: Call[] };

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

function matches(route: string, asked: string): boolean {
  const pattern = route.replaceAll(/:\w+/g, '[^/]+');
  return new RegExp(`^${pattern}$`).test(asked);
}

/** Shows a part; every call it makes is answered from the table, and one that is not in it fails. */
export function show(
  part: ReactNode,
  answers: Partial<Record<ApiRoute, Answer>> = {},
  role: Role = 'administrator',
): Shown {
  const calls: Call[] = [];
  vi.stubGlobal('fetch', (path: string, init: RequestInit): Promise<Response> => {
    const { pathname, searchParams } = new URL(path, 'http://localhost');
    const asked = `${init.method ?? 'GET'} ${pathname}`;
    const sent = typeof init.body === 'string' ? (JSON.parse(init.body) as object) : {};
    const input = { ...Object.fromEntries(searchParams), ...sent };
    calls.push({ route: asked, input });
    const found = Object.entries(answers).find(([route]) => matches(route, asked))?.[1];
    if (found === undefined) return Promise.reject(new Error(`nobody answers ${asked}`));
    if (typeof found === 'function') return Promise.resolve(Response.json(found(input)));
    return Promise.resolve(Response.json({ error: found.error }, { status: found.status }));
  });
  render(
    <QueryProvider>
      <RoleProvider value={role}>{part}</RoleProvider>
    </QueryProvider>,
  );
  return { user: userEvent.setup(), calls };
}
