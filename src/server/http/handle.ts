import 'server-only';
import { headers as requestHeaders } from 'next/headers';
import { notFound, redirect, unstable_rethrow } from 'next/navigation';
import { z } from 'zod';
import type { Pretence } from '@/contracts/demo';
import { hasCode } from '@/core/base/errors';
import { PROVEN_POWERS, holds, type Permission } from '@/core/policy/permissions';
import type { Container } from '@/server/container';
import { json, respondError } from '@/server/http/respond';
import { jsonText, parseJson } from '@/server/http/body';
import { checkOrigin } from '@/server/http/same-origin';
import { running } from '@/server/http/running';
import { spokenTo } from '@/server/http/reader-language';
import { hasDevice, needReader, needStaff, pretenceOf, strangerOf } from '@/server/http/session';
import type { Deps, ReaderActor, StaffActor, StrangerActor } from '@/server/services/base/deps';
import type { Json } from '@/core/ledger/canonical';
import { actOnce } from '@/server/services/base/act-once';
import { needProof } from '@/server/services/staff/prove-staff';
import { ServiceError } from '@/server/services/base/errors';
import { STAFF, type Reader } from '@/words/problem-text';
import { isSetUp } from '@/server/services/staff/set-up-organisation';

type Params = { readonly params: Promise<Record<string, string>> };
/**
 * Who may call a route: staff who hold a power, any staff, a proven reader, or anybody. A page reader
 * is a proven reader whom the service looks at once more before anything is sent.
 */
export type Caller = Permission | 'staff' | Recipient | 'stranger';
type Recipient = 'reader' | 'page-reader';
/** A route handler; `contract` stands in its type alone: what it takes and gives. */
export type Handler<S extends z.ZodType, R> = ((
  request: Request,
  context: Params,
) => Promise<Response>) & {
  readonly openTo: Caller;
  readonly contract?: { readonly schema: S; readonly result: R };
};
type ActorOf<C extends Caller> = C extends Recipient
  ? ReaderActor
  : C extends 'stranger'
    ? StrangerActor
    : StaffActor;

function isRecipient(caller: Caller): caller is Recipient {
  return caller === 'reader' || caller === 'page-reader';
}

/** What a body may have: somebody who has proven little is read little of. */
const LARGEST = { unknown: 16 * 1024, staff: 4 * 1024 * 1024 };

/** The query's values; what stands there several times is a list. */
function queryOf(given: URLSearchParams): Record<string, string | string[]> {
  return Object.fromEntries(
    [...new Set(given.keys())].map((name) => {
      const values = given.getAll(name);
      return [name, values.length === 1 ? (values[0] ?? '') : values];
    }),
  );
}

/** Path parameters, and the query or the JSON body, as one object. */
async function inputOf(request: Request, body: string, { params }: Params): Promise<unknown> {
  const query = queryOf(new URL(request.url).searchParams);
  const parsed = parseJson(body);
  return { ...query, ...(typeof parsed === 'object' ? parsed : {}), ...(await params) };
}

/** What names a request that may come again. */
const ACT_KEY = /^[0-9A-Za-z_-]{16,64}$/;

type Asked<C extends Caller> = {
  readonly actor: ActorOf<C>;
  readonly cookie: string | null;
  readonly input: unknown;
};

/**
 * Who asks, and for what: anyone who can be held to nothing is read little of, and the others not
 * before it is known who they are.
 */
async function asked<C extends Caller>(
  container: Container,
  caller: C,
  request: Request,
  context: Params,
  largest: number,
): Promise<Asked<C>> {
  checkOrigin(request, container.deps.publicUrl);
  const isStaff = !isRecipient(caller) && caller !== 'stranger';
  const early = isStaff ? '' : await jsonText(request, LARGEST.unknown);
  const { actor, cookie } = await actorFor(container, caller, request, early);
  return {
    actor,
    cookie,
    input: await inputOf(request, isStaff ? await jsonText(request, largest) : early, context),
  };
}

async function actorFor<C extends Caller>(
  container: Container,
  caller: C,
  request: Request,
  body: string,
): Promise<{ actor: ActorOf<C>; cookie: string | null }> {
  if (caller === 'stranger')
    return strangerOf(container, request.headers) as { actor: ActorOf<C>; cookie: string | null };
  const actor = isRecipient(caller)
    ? await needReader(container, request, body, caller === 'page-reader')
    : await needPermission(container, request.headers, caller);
  // Looking needs no fresh proof; changing what reaches far does.
  if (actor.kind === 'staff' && request.method !== 'GET' && PROVEN_POWERS.has(caller as Permission))
    needProof(actor);
  return { actor: actor as ActorOf<C>, cookie: null };
}

/** Who hears what goes wrong. A page of the reader asks in its own language, and any browser in those it prefers. */
function readerOf(caller: Caller, { headers }: Request): Reader {
  return isRecipient(caller) || caller === 'stranger'
    ? { audience: 'recipient', language: spokenTo(headers) }
    : STAFF;
}

/** @throws ServiceError `NOT_SIGNED_IN`, `NOT_ALLOWED` */
async function needPermission(
  container: Container,
  headers: Headers,
  power: Permission | 'staff',
): Promise<StaffActor> {
  const actor = await needStaff(container, headers);
  if (power !== 'staff' && !holds(actor.role, power))
    throw new ServiceError('permission-missing', { role: actor.role });
  return actor;
}

/**
 * A route that parses its input, calls one service and answers with its result. Who may call it is
 * said here; where a request came from is checked for every change.
 */
export function handle<C extends Caller, S extends z.ZodType, R>(
  caller: C,
  schema: S,
  service: (deps: Deps, actor: ActorOf<C>, input: z.infer<S>, request: Request) => Promise<R>,
  respond: (result: R, deps: Deps) => Response = (result) => json(result),
  /** Bytes of JSON that staff may send here. */
  largest: number = LARGEST.staff,
): Handler<S, R> {
  const route = async (request: Request, context: Params): Promise<Response> => {
    const container = await running();
    try {
      const { actor, cookie, input } = await asked(container, caller, request, context, largest);
      const parsed: z.infer<S> = schema.parse(input);
      const key = request.headers.get('idempotency-key');
      const act =
        key === null || actor.kind !== 'staff' || request.method === 'GET' || !ACT_KEY.test(key)
          ? null
          : {
              who: actor.id,
              key,
              what: `${request.method} ${new URL(request.url).pathname} ${JSON.stringify(input)}`,
            };
      const work = () => service(container.deps, actor, parsed, request);
      // The same request come again, after an answer that was lost, is the same act.
      const result =
        act === null
          ? await work()
          : ((await actOnce(container.deps, act, work as () => Promise<Json>)) as R);
      const response = respond(result, container.deps);
      if (cookie !== null) response.headers.append('set-cookie', cookie);
      return response;
    } catch (error) {
      unstable_rethrow(error);
      return respondError(error, container.log, readerOf(caller, request));
    }
  };
  return Object.assign(route, { openTo: caller });
}

/** A route that needs the sign-in library as well: signing in and out, setting up. */
export function handleIdentity<C extends Exclude<Caller, Recipient>, S extends z.ZodType, R>(
  caller: C,
  schema: S,
  use: (
    container: Container,
    actor: ActorOf<C>,
    input: z.infer<S>,
    request: Request,
  ) => Promise<{ readonly body: R; readonly cookies: readonly string[] }>,
): Handler<S, R> {
  const route = async (request: Request, context: Params): Promise<Response> => {
    const container = await running();
    try {
      const { actor, cookie, input } = await asked(
        container,
        caller,
        request,
        context,
        LARGEST.staff,
      );
      const { body, cookies } = await use(container, actor, schema.parse(input), request);
      const response = json(body);
      if (cookie !== null) response.headers.append('set-cookie', cookie);
      for (const cookie of cookies) response.headers.append('set-cookie', cookie);
      return response;
    } catch (error) {
      unstable_rethrow(error);
      return respondError(error, container.log, readerOf(caller, request));
    }
  };
  return Object.assign(route, { openTo: caller });
}

/** Data for a staff page; leads to set-up or sign-in where that is due. */
export async function loadForStaff<R>(
  power: Permission | 'staff',
  service: (deps: Deps, actor: StaffActor, pretence: Pretence) => Promise<R>,
): Promise<R> {
  const container = await running();
  try {
    if (!(await isSetUp(container.deps))) redirect('/set-up');
    const headers = await requestHeaders();
    return await service(
      container.deps,
      await needPermission(container, headers, power),
      pretenceOf(container, headers),
    );
  } catch (error) {
    unstable_rethrow(error);
    if (hasCode(error, 'NOT_SIGNED_IN')) redirect('/sign-in');
    if (hasCode(error, 'NOT_ALLOWED')) redirect('/not-allowed');
    if (hasCode(error, 'NOT_FOUND')) notFound();
    if (error instanceof z.ZodError) notFound();
    throw error;
  }
}

/** Data for a page anybody may see; `proven`: this browser says that it has proven an address. */
export async function loadForAnyone<R>(
  service: (deps: Deps, proven: boolean) => Promise<R>,
): Promise<R> {
  const container = await running();
  try {
    return await service(container.deps, await hasDevice(container, await requestHeaders()));
  } catch (error) {
    unstable_rethrow(error);
    if (hasCode(error, 'NOT_FOUND')) notFound();
    throw error;
  }
}
