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
  const given: Readonly<Record<string, unknown>> = { ...input };
  const inPath = new Set<string>();
  const path = pattern.replaceAll(/:(\w+)/g, (_whole, name: string) => {
    inPath.add(name);
    return encodeURIComponent(String(given[name]));
  });
  const rest = Object.fromEntries(Object.entries(given).filter(([name]) => !inPath.has(name)));
  if (method === 'GET') return call<Api[R]['gives']>(method, path + searchOf(rest));
  return call<Api[R]['gives']>(method, path, method === 'DELETE' ? undefined : rest);
}
