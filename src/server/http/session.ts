import 'server-only';
import { randomBytes } from 'node:crypto';
import { acceptedTags, firstLanguage } from '@/core/base/languages';
import { MINUTE } from '@/core/base/time';
import { demoInput, type Pretence } from '@/contracts/demo';
import type { Container } from '@/server/container';
import { isProven } from '@/server/identity/device-proof';
import { findSession, findStaff } from '@/server/repositories/staff/staff-repository';
import type { DeviceRow } from '@/server/repositories/reading/reader-repository';
import type { Origin, ReaderActor, StaffActor, StrangerActor } from '@/server/services/base/deps';
import { areOurs } from '@/server/services/base/trusted-rows';
import { ServiceError } from '@/server/services/base/errors';
import {
  findKnownDevice,
  needHeldDevice,
  needKnownDevice,
  type KnownDevice,
} from '@/server/services/reading/known-device';

/** Where a request came from. The server in front sets this header and removes any that a client sent. */
function originOf(headers: Headers): Origin {
  return {
    network: headers.get('x-embargo-network') ?? 'unknown',
    agent: headers.get('user-agent') ?? '',
  };
}

function cookieName(name: string, publicUrl: string): string {
  return publicUrl.startsWith('https:') ? `__Host-${name}` : name;
}

function readCookie(headers: Headers, name: string): string | null {
  const pair = (headers.get('cookie') ?? '')
    .split(/;\s*/)
    .find((each) => each.startsWith(`${name}=`));
  try {
    return pair === undefined ? null : decodeURIComponent(pair.slice(name.length + 1));
  } catch {
    // A cookie of ours is whole; a broken one is nobody's.
    return null;
  }
}

function writeCookie(
  name: string,
  value: string,
  publicUrl: string,
  maxAge: number | null,
): string {
  const secure = publicUrl.startsWith('https:') ? '; Secure' : '';
  const kept = maxAge === null ? '' : `; Max-Age=${String(maxAge)}`;
  return `${cookieName(name, publicUrl)}=${value}; Path=/; HttpOnly; SameSite=Lax${secure}${kept}`;
}

/** The language that somebody chose in this browser; null: none. It is no secret, and any text may stand there. */
export function languageChosen(headers: Headers): string | null {
  return readCookie(headers, 'embargo-language');
}

const DEVICE = 'embargo-device';
const BROWSER = 'embargo-browser';

const PRETENCE = 'embargo-demo';

/** The cookie that keeps what this browser pretends in a demo. */
export function pretenceCookie(pretence: Pretence, publicUrl: string): string {
  return writeCookie(PRETENCE, encodeURIComponent(JSON.stringify(pretence)), publicUrl, null);
}

/** What this browser pretends in a demo; nothing anywhere else, whatever it sends. */
export function pretenceOf({ deps }: Container, headers: Headers): Pretence {
  const text =
    deps.demo === null ? null : readCookie(headers, cookieName(PRETENCE, deps.publicUrl));
  try {
    const { network, agent } = demoInput.parse(JSON.parse(text ?? '{}'));
    return { network: network ?? null, agent: agent ?? null };
  } catch {
    return { network: null, agent: null };
  }
}

/** Where a recipient's request came from: in a demo, from where it was said to. */
function whereOf(container: Container, headers: Headers): Origin {
  const { network, agent } = originOf(headers);
  const pretence = pretenceOf(container, headers);
  return { network: pretence.network ?? network, agent: pretence.agent ?? agent };
}

export function deviceCookie(token: string, publicUrl: string, maxAge: number | null): string {
  return writeCookie(DEVICE, token, publicUrl, maxAge);
}

/** How long password and second factor, once given, stand for what reaches far. By the real clock, as sessions are. */
const STAFF_PROOF_LASTS = 10 * MINUTE;

/** @throws ServiceError `NOT_SIGNED_IN` */
export async function needStaff(
  { identity, deps }: Container,
  headers: Headers,
): Promise<StaffActor> {
  const found = await identity.whoIs(headers);
  const [row, session] =
    found === null
      ? [null, null]
      : await Promise.all([
          findStaff(deps.db.read, found.staff),
          findSession(deps.db.read, found.session),
        ]);
  const ours =
    row !== null &&
    found !== null &&
    (await areOurs(deps, deps.db.read, { staff: [row.id], staff_sessions: [found.session] }));
  if (found === null || session === null || !ours || row.disabledAt !== null)
    throw new ServiceError('signed-out');
  return {
    kind: 'staff',
    id: row.id,
    name: row.name,
    email: row.email,
    role: row.role,
    session: found.session,
    proven: Date.now() - (session.provenAt ?? session.createdAt) < STAFF_PROOF_LASTS,
    from: originOf(headers),
  };
}

/** A mark for a browser of which nothing is known, with the cookie to set where it had none. */
export function strangerOf(
  container: Container,
  headers: Headers,
): { readonly actor: StrangerActor; readonly cookie: string | null } {
  const { publicUrl } = container.deps;
  const found = readCookie(headers, cookieName(BROWSER, publicUrl));
  const browser =
    found !== null && /^[0-9a-f]{32}$/.test(found) ? found : randomBytes(16).toString('hex');
  return {
    actor: {
      kind: 'stranger',
      browser,
      language: firstLanguage(acceptedTags(headers.get('accept-language'))),
      from: whereOf(container, headers),
    },
    cookie: browser === found ? null : writeCookie(BROWSER, browser, publicUrl, null),
  };
}

function deviceToken({ deps }: Container, headers: Headers): string | null {
  return readCookie(headers, cookieName(DEVICE, deps.publicUrl));
}

/** The device whose cookie came along, if it is one of ours and has not ended. */
export async function deviceOf(container: Container, headers: Headers): Promise<DeviceRow | null> {
  const token = deviceToken(container, headers);
  return token === null ? null : findKnownDevice(container.deps, token);
}

function toReader(
  container: Container,
  { device, recipient }: KnownDevice,
  headers: Headers,
): ReaderActor {
  return {
    kind: 'reader',
    device: device.id,
    kept: device.kept,
    provenAt: device.provenAt,
    passkeyAt: device.passkeyAt,
    address: device.address,
    recipient,
    from: whereOf(container, headers),
  };
}

/**
 * Whether this browser says that it has proven an address: enough to ask for a signed request,
 * never to be shown anything.
 */
export async function hasDevice(container: Container, headers: Headers): Promise<boolean> {
  return (await deviceOf(container, headers)) !== null;
}

const notProven = (): ServiceError => new ServiceError('address-unproven');

/**
 * The reader behind a request for content. The request must be signed with the key that this
 * browser made when it proved the address: a copied cookie, page address or request is worth
 * nothing.
 *
 * @throws ServiceError `NOT_SIGNED_IN`
 */
export async function needReader(
  container: Container,
  request: Request,
  body: string,
  isLookedAtAgain = false,
): Promise<ReaderActor> {
  const token = deviceToken(container, request.headers);
  if (token === null) throw notProven();
  const need = isLookedAtAgain ? needHeldDevice : needKnownDevice;
  const known = await need(container.deps, token);
  // The real clock, not the demo's: this is about the browser and the wire.
  if (!isProven(request, body, known.device, container.proofsUsed, Date.now())) throw notProven();
  return toReader(container, known, request.headers);
}
