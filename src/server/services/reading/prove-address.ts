import 'server-only';
import { newId, type DispatchId } from '@/core/base/ids';
import { equalBytes, utf8 } from '@/core/base/bytes';
import { languageOf } from '@/core/base/languages';
import { MINUTE } from '@/core/base/time';
import type { Details } from '@/core/ledger/details';
import type { EnterCodeInput } from '@/contracts/reader';
import { codeMail } from '@/server/mail/dispatch-mail';
import { networkKey } from '@/server/limits/limits';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import {
  countAttempt,
  findChallenge,
  findLink,
  findRecipientByAddress,
  insertChallenge,
  useChallenge,
} from '@/server/repositories/reading/reader-repository';
import { hasBeenSent } from '@/server/repositories/reading/sent-repository';
import type { Deps, StrangerActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { KEPT_LASTS, makeDevice, needDeviceKey } from '@/server/services/reading/make-device';
import { linkOfAnother } from '@/server/services/reading/way-here';
import { record, recordAlone, whereabouts } from '@/server/services/base/record';

const CODE_LASTS = 10 * MINUTE;
const MAX_ATTEMPTS = 5;

type Link = NonNullable<Awaited<ReturnType<typeof findLink>>>;

/** The link that was followed; null: none, to see what was sent to the address. @throws ServiceError `NOT_FOUND` */
async function linkOfToken(deps: Deps, token: string | null): Promise<Link | null> {
  if (token === null) return null;
  const found = await findLink(deps.db.read, token);
  if (found === null) throw new ServiceError('link-unknown');
  return found;
}

/** What an entry says of a link: of which dispatch it is, and whose, where somebody else asks by it. */
function aboutLink(
  link: Link | null,
  address: string,
): { readonly dispatch?: DispatchId; readonly details: NonNullable<Details['code.requested']> } {
  if (link === null) return { details: {} };
  const linkOf = linkOfAnother(link, { address });
  return { dispatch: link.dispatch.id, details: linkOf === null ? {} : { linkOf } };
}

function newCode(deps: Deps): string {
  // 2^32 is so much larger than 10^6 that no code is noticeably likelier than another.
  const number = new DataView(deps.random(4).buffer.slice(0)).getUint32(0);
  return String(number % 1_000_000).padStart(6, '0');
}

/** Whether another code may be asked for. @throws ServiceError `TOO_MANY` */
async function needTurn(
  { limits }: Deps,
  { from }: StrangerActor,
  link: Link | null,
  address: string,
): Promise<void> {
  const network = networkKey(from.network);
  const waits = [
    await limits.codesByNetwork(network),
    await limits.addressesByLink(`${network} ${link?.link.id ?? 'list'}`, address),
    await limits.codesToOne(`${network} ${address}`),
  ];
  const wait = Math.max(...waits);
  if (wait > 0) throw tooMany(wait);
  // Counted last: whoever is held back already uses up nothing that is everybody's.
  const all = await limits.codesInAll('all');
  if (all > 0) throw tooMany(all);
}

/**
 * Mails a one-time code to an address, for this browser alone. Nothing in the answer, and nothing
 * that counts, tells whether the address was ever addressed. Who holds a link has any address mailed
 * a code, and proven or not, the policy decides; without a link only those are written to who were
 * sent something, so that nobody has strangers mailed from here. What counts is the asker's network.
 *
 * @throws ServiceError `NOT_FOUND`, `TOO_MANY`
 */
export async function requestCode(
  deps: Deps,
  actor: StrangerActor,
  input: { readonly token: string | null; readonly address: string },
): Promise<{ readonly minutes: number }> {
  const link = await linkOfToken(deps, input.token);
  const now = deps.clock.now();
  await needTurn(deps, actor, link, input.address);
  const recipient = await findRecipientByAddress(deps.db.read, input.address);

  const code = newCode(deps);
  const organisation = await findOrganisation(deps.db.read);
  const id = newId('challenge', deps.random);
  const isWritten = link !== null || (await hasBeenSent(deps.db.read, input.address));
  const mail = codeMail({
    code,
    when: now,
    zone: organisation?.zone ?? 'UTC',
    network: actor.from.network,
    near: deps.places.find(actor.from.network)?.name ?? null,
    // The page they look at is in a language that they, or their browser, chose.
    language: actor.language ?? languageOf(recipient?.language ?? null),
    minutes: CODE_LASTS / MINUTE,
  });
  await deps.db.write(async (tx) => {
    await insertChallenge(tx, {
      id,
      linkId: link?.link.id ?? null,
      address: input.address,
      codeMac: deps.vault.mac('one-time code', `${id} ${code}`),
      browserHash: deps.vault.mac('browser', actor.browser),
      expiresAt: now + CODE_LASTS,
      createdAt: now,
    });
    if (isWritten)
      await queueMail(tx, [
        {
          id: newId('message', deps.random),
          toAddress: input.address,
          ...mail,
          state: 'waiting',
          urgent: true,
          nextAttemptAt: now,
          createdAt: now,
        },
      ]);
    await record(deps, tx, {
      action: 'code.requested',
      outcome: 'done',
      actor: { kind: 'stranger', id: null },
      occurredAt: now,
      ...aboutLink(link, input.address),
      ...(recipient === null ? {} : { recipient: recipient.id }),
      personal: { address: input.address, ...whereabouts(deps, actor.from) },
    });
  });
  return { minutes: CODE_LASTS / MINUTE };
}

/**
 * Exchanges a code for a device: the token for its cookie, in the clear only here.
 *
 * @throws ServiceError `INVALID` where the code is wrong, old or was asked for elsewhere; `TOO_MANY`
 */
export async function enterCode(
  deps: Deps,
  actor: StrangerActor,
  input: EnterCodeInput,
): Promise<{ readonly deviceToken: string; readonly maxAge: number | null }> {
  // First of all: whoever guesses without end costs nothing more than being counted.
  const wait = await deps.limits.guessesByNetwork(networkKey(actor.from.network));
  if (wait > 0) throw tooMany(wait);
  const link = await linkOfToken(deps, input.token);
  needDeviceKey(input.publicKey);
  const now = deps.clock.now();
  const challenge = await findChallenge(
    deps.db.read,
    link?.link.id ?? null,
    input.address,
    deps.vault.mac('browser', actor.browser),
    now,
  );
  const recipient = await findRecipientByAddress(deps.db.read, input.address);
  const { dispatch, details } = aboutLink(link, input.address);
  const about = {
    occurredAt: now,
    ...(dispatch === undefined ? {} : { dispatch }),
    ...(recipient === null ? {} : { recipient: recipient.id }),
    personal: { address: input.address, ...whereabouts(deps, actor.from) },
  };

  // The attempt is counted and lasting before the code is looked at, so that guessing in parallel gains nothing.
  const attempts =
    challenge === null
      ? Number.POSITIVE_INFINITY
      : await deps.db.write((tx) => countAttempt(tx, challenge.id));
  const right =
    challenge !== null &&
    attempts <= MAX_ATTEMPTS &&
    equalBytes(
      utf8(deps.vault.mac('one-time code', `${challenge.id} ${input.code}`)),
      utf8(challenge.codeMac),
    );
  if (!right) {
    await recordAlone(deps, {
      action: 'code.entered',
      outcome: 'refused',
      reason: 'identity-not-proven',
      actor: { kind: 'stranger', id: null },
      ...about,
      details,
    });
    const left = Math.max(0, MAX_ATTEMPTS - attempts);
    throw new ServiceError('code-wrong', { left });
  }

  const deviceToken = await deps.db.write(async (tx) => {
    await useChallenge(tx, challenge.id, now);
    const { device, deviceToken: token } = await makeDevice(
      deps,
      tx,
      {
        address: input.address,
        recipient: recipient?.id ?? null,
        agent: actor.from.agent,
        kept: input.kept,
        publicKey: input.publicKey,
      },
      now,
    );
    await record(deps, tx, {
      action: 'code.entered',
      outcome: 'granted',
      actor:
        recipient === null
          ? { kind: 'stranger', id: null }
          : { kind: 'recipient', id: recipient.id },
      device,
      ...about,
      details: { kept: input.kept, ...details },
    });
    return token;
  });
  return { deviceToken, maxAge: input.kept ? KEPT_LASTS / 1000 : null };
}
