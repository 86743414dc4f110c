import 'server-only';
import { headers as requestHeaders } from 'next/headers';
import { notFound, redirect, unstable_rethrow } from 'next/navigation';
import { z } from 'zod';
import { readConfig } from '@/server/config/env';
import { createContainer, type Container } from '@/server/container';
import { json, respondError } from '@/server/http/respond';
import { checkOrigin } from '@/server/http/same-origin';
import { findReader, needReader, needStaff, strangerOf } from '@/server/http/session';
import type { Deps, ReaderActor, StaffActor, StrangerActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { isSetUp } from '@/server/services/set-up-organisation';

type Params = { readonly params: Promise<Record<string, string>> };
type Route = (request: Request, context: Params) => Promise<Response>;
type Actors = { readonly staff: StaffActor; readonly reader: ReaderActor; readonly stranger: StrangerActor };

const kept = globalThis as typeof globalThis & { embargoContainer?: Promise<Container> };

/** The one container of this process; the framework may load this module more than once. */
export function running(): Promise<Container> {
  return (kept.embargoContainer ??= createContainer(readConfig()));
}

/** Path parameters, and the query or the JSON body, as one object. */
async function inputOf(request: Request, { params }: Params): Promise<unknown> {
  const query = Object.fromEntries(new URL(request.url).searchParams);
  const body: unknown = request.method === 'GET' || request.headers.get('content-type')?.startsWith('application/json') !== true ? {} : await request.json().catch(() => { throw new ServiceError('INVALID', 'The request is not readable.'); });
  return { ...query, ...(typeof body === 'object' ? body : {}), ...(await params) };
}

async function actorFor<K extends keyof Actors>(container: Container, kind: K, request: Request): Promise<{ actor: Actors[K]; cookie: string | null }> {
  switch (kind) {
    case 'staff': return { actor: (await needStaff(container, request.headers)) as Actors[K], cookie: null };
    case 'reader': return { actor: (await needReader(container, request)) as Actors[K], cookie: null };
    default: return strangerOf(container, request.headers) as { actor: Actors[K]; cookie: string | null };
  }
}

/**
 * A route that parses its input, calls one service and answers with its result. Who may call it is
 * said here; where a request came from is checked for every change.
 */
export function handle<K extends keyof Actors, S extends z.ZodType, R>(
  kind: K,
  schema: S,
  service: (deps: Deps, actor: Actors[K], input: z.infer<S>, request: Request) => Promise<R>,
  respond: (result: R, deps: Deps) => Response = (result) => json(result),
): Route {
  return async (request, context) => {
    const container = await running();
    try {
      checkOrigin(request, container.deps.publicUrl);
      const { actor, cookie } = await actorFor(container, kind, request);
      const response = respond(await service(container.deps, actor, schema.parse(await inputOf(request, context)), request), container.deps);
      if (cookie !== null) response.headers.append('set-cookie', cookie);
      return response;
    } catch (error) {
      unstable_rethrow(error);
      return respondError(error, container.log);
    }
  };
}

/** A route that needs the sign-in library as well: signing in and out, setting up. */
export function handleIdentity<S extends z.ZodType>(schema: S, use: (container: Container, input: z.infer<S>, request: Request) => Promise<{ readonly body: unknown; readonly cookies: readonly string[] }>): Route {
  return async (request, context) => {
    const container = await running();
    try {
      checkOrigin(request, container.deps.publicUrl);
      const { body, cookies } = await use(container, schema.parse(await inputOf(request, context)), request);
      const response = json(body);
      for (const cookie of cookies) response.headers.append('set-cookie', cookie);
      return response;
    } catch (error) {
      unstable_rethrow(error);
      return respondError(error, container.log);
    }
  };
}

/** Data for a staff page; leads to set-up or sign-in where that is due. */
export async function loadForStaff<R>(service: (deps: Deps, actor: StaffActor) => Promise<R>): Promise<R> {
  const container = await running();
  try {
    if (!(await isSetUp(container.deps))) redirect('/set-up');
    return await service(container.deps, await needStaff(container, await requestHeaders()));
  } catch (error) {
    unstable_rethrow(error);
    if (error instanceof ServiceError && error.code === 'NOT_SIGNED_IN') redirect('/sign-in');
    if (error instanceof ServiceError && error.code === 'NOT_FOUND') notFound();
    if (error instanceof z.ZodError) notFound();
    throw error;
  }
}

/** Data for a page anybody may see; `reader` is null until an address was proven in this browser. */
export async function loadForAnyone<R>(service: (deps: Deps, reader: ReaderActor | null) => Promise<R>): Promise<R> {
  const container = await running();
  try {
    return await service(container.deps, await findReader(container, await requestHeaders()));
  } catch (error) {
    unstable_rethrow(error);
    if (error instanceof ServiceError && error.code === 'NOT_FOUND') notFound();
    throw error;
  }
}
