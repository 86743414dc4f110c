import type { Api, ApiRoute } from '@/contracts/api';
import { call } from '@/ui/http/call';

type Method = 'GET' | 'POST' | 'DELETE';

function searchOf(query: Readonly<Record<string, unknown>>): string {
  const search = new URLSearchParams(
    Object.entries(query).flatMap(([name, value]) =>
      (Array.isArray(value) ? value : [value])
        .filter((each) => each !== undefined && each !== null && each !== '')
        .map((each): [string, string] => [name, String(each)]),
    ),
  ).toString();
  return search === '' ? '' : `?${search}`;
}

/**
 * Calls a route of the API by its contract: what its path names is taken from the input, and the
 * rest becomes the query or the body. @throws CallError
 */
export async function api<R extends ApiRoute>(
  route: R,
  input: Api[R]['takes'],
): Promise<Api[R]['gives']> {
  const [method, pattern] = route.split(' ') as [Method, string];
  const rest: Record<string, unknown> = { ...input };
  const path = pattern.replaceAll(/:(\w+)/g, (_whole, name: string) => {
    const { [name]: part } = rest;
    delete rest[name];
    return encodeURIComponent(String(part));
  });
  if (method === 'GET') return call<Api[R]['gives']>(method, path + searchOf(rest));
  return call<Api[R]['gives']>(method, path, method === 'DELETE' ? undefined : rest);
}
