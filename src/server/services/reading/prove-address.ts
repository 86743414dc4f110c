import 'server-only';
import { newId } from '@/core/base/ids';
import { equalBytes, utf8 } from '@/core/base/bytes';
import { mailLanguage } from '@/core/base/languages';
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
import type { Deps, StrangerActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { KEPT_LASTS, makeDevice, needDeviceKey } from '@/server/services/reading/make-device';
import { linkOfAnother } from '@/server/services/reading/open-document';
import { record, recordAlone, whereabouts } from '@/server/services/base/record';

const CODE_LASTS = 10 * MINUTE;
const MAX_ATTEMPTS = 5;

async function needLink(deps: Deps, token: string) {
  const found = await findLink(deps.db.read, token);
  if (found === null) throw new ServiceError('link-unknown');
  return found;
}

/** Whose link it is, where somebody else asks by it. */
function whoseLink(
  link: Awaited<ReturnType<typeof needLink>>,
  address: string,
): NonNullable<Details['code.requested']> {
  const linkOf = linkOfAnother(link, { address });
  return linkOf === null ? {} : { linkOf };
}

function newCode(deps: Deps): string {
  // 2^32 is so much larger than 10^6 that no code is noticeably likelier than another.
  const number = new DataView(deps.random(4).buffer.slice(0)).getUint32(0);
  return String(number % 1_000_000).padStart(6, '0');
}

/**
 * Mails a one-time code to an address, for this browser alone. Nothing in the answer, and nothing
 * that counts, tells whether the address was ever addressed: it is always mailed a code, and proven
 * or not, the policy decides. What counts is the asker's network.
 *
 * @throws ServiceError `NOT_FOUND`, `TOO_MANY`
 */
export async function requestCode(
  deps: Deps,
  actor: StrangerActor,
  input: { readonly token: string; readonly address: string },
): Promise<{ readonly minutes: number }> {
  const found = await needLink(deps, input.token);
  const { link, dispatch } = found;
  const now = deps.clock.now();
  const network = networkKey(actor.from.network);
  const waits = [
    await deps.limits.codesByNetwork(network),
    await deps.limits.addressesByLink(`${network} ${link.id}`, input.address),
    await deps.limits.codesToOne(`${network} ${input.address}`),
  ];
  const wait = Math.max(...waits);
  if (wait > 0) throw tooMany(wait);
  const recipient = await findRecipientByAddress(deps.db.read, input.address);

  const code = newCode(deps);
  const organisation = await findOrganisation(deps.db.read);
  const id = newId('challenge', deps.random);
  const mail = codeMail({
    code,
    when: now,
    zone: organisation?.zone ?? 'UTC',
    network: actor.from.network,
    near: deps.places.find(actor.from.network)?.name ?? null,
    language: mailLanguage(recipient?.language ?? null),
    minutes: CODE_LASTS / MINUTE,
  });
  await deps.db.write(async (tx) => {
    await insertChallenge(tx, {
      id,
      linkId: link.id,
      address: input.address,
      codeMac: deps.vault.mac('one-time code', `${id} ${code}`),
      browserHash: deps.vault.mac('browser', actor.browser),
      expiresAt: now + CODE_LASTS,
      createdAt: now,
    });
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
      dispatch: dispatch.id,
      ...(recipient === null ? {} : { recipient: recipient.id }),
      details: whoseLink(found, input.address),
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
  const found = await needLink(deps, input.token);
  const { link, dispatch } = found;
  await needDeviceKey(input.publicKey);
  const now = deps.clock.now();
  const wait = await deps.limits.guessesByNetwork(networkKey(actor.from.network));
  if (wait > 0) throw tooMany(wait);
  const challenge = await findChallenge(
    deps.db.read,
    link.id,
    input.address,
    deps.vault.mac('browser', actor.browser),
    now,
  );
  const recipient = await findRecipientByAddress(deps.db.read, input.address);
  const about = {
    occurredAt: now,
    dispatch: dispatch.id,
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
      details: whoseLink(found, input.address),
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
      details: { kept: input.kept, ...whoseLink(found, input.address) },
    });
    return token;
  });
  return { deviceToken, maxAge: input.kept ? KEPT_LASTS / 1000 : null };
}
