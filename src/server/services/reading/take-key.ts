import 'server-only';
import { base64urlnopad } from '@scure/base';
import { boxKey, boxThumbprint } from '@/core/licence/key-box';
import { RIGHTS } from '@/core/policy/rights';
import type { KeyTaken, TakeKeyInput } from '@/contracts/own-machine';
import type { Transaction } from '@/server/db/database';
import { noteOnDevice } from '@/server/repositories/reading/reader-repository';
import { readsWithAids } from '@/server/services/policy/reading-aids';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { record, whereabouts } from '@/server/services/base/record';
import {
  aboutOpen,
  askerOf,
  decideAgain,
  needLicence,
  recordWithheld,
  render,
  type Opened,
  type Refused,
} from '@/server/services/reading/open-licence';

type Given = Pick<KeyTaken, 'statement' | 'box' | 'offlineUntil'> & { readonly outcome: 'granted' };

/**
 * Gives the content key of an open to its device, so that the document is read on the person's own
 * machine: encrypted to a key of that device, with the licence as a signed statement. Each time is
 * recorded, since whoever was given the key could have kept it.
 *
 * @throws ServiceError `not-on-own-machine`, `file-of-another-version`, `document-gone`, `TOO_MANY`
 */
export async function takeKey(
  deps: Deps,
  actor: ReaderActor,
  input: TakeKeyInput,
): Promise<KeyTaken | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const wait = await deps.limits.opens(actor.address);
  if (wait > 0) throw tooMany(wait);
  if (opened.version.id !== input.version) throw new ServiceError('file-of-another-version');
  const glyphs = await render(
    deps,
    opened,
    { kind: 'glyphs', watermark: opened.licence.watermark, on: 'screen' },
    askerOf(opened, undefined),
  );
  const given = await deps.db.write((tx) => giveIn(deps, tx, actor, opened, input));
  if (given.outcome === 'refused') return recordWithheld(deps, actor, opened, 'read', given);
  const publicKey = base64urlnopad.encode(deps.recorder.signer.publicKey);
  const issuer = { name: deps.publicUrl, publicKey };
  return { ...given, glyphs, issuer, now: deps.clock.now() };
}

/** Decides, gives and writes it down in one transaction. */
async function giveIn(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  opened: Opened,
  input: TakeKeyInput,
): Promise<Given | Refused> {
  const { licence, version, document } = opened;
  const decision = await decideAgain(deps, tx, actor, opened, 'read');
  if (decision.outcome === 'refused') return decision;
  const { offline } = decision.obligations;
  if (offline === null) throw new ServiceError('not-on-own-machine');
  if (version.wrappedKey === null) throw new ServiceError('document-gone');
  const now = deps.clock.now();
  // A borrowed machine keeps nothing: there every open asks.
  const offlineUntil =
    offline === 0 || !actor.kept
      ? null
      : Math.min(now + offline, decision.until ?? Number.POSITIVE_INFINITY);
  const readingAids = await readsWithAids(deps, tx, decision, {
    owner: document.ownerId,
    recipient: licence.recipientId,
  });
  // Neither waits for a disk or a network, so both may be awaited inside.
  const statement = await deps.signLicence({
    id: licence.id,
    grant: licence.grantId,
    document: licence.documentId,
    version: version.id,
    recipient: licence.recipientId,
    device: actor.device,
    rights: RIGHTS.filter((right) => decision.rights[right].granted),
    watermark: licence.watermark,
    issuedAt: now,
    expiresAt: offlineUntil ?? licence.expiresAt,
    own: { keyThumbprint: await boxThumbprint(input.boxKey), offlineUntil, readingAids },
  });
  const fileKey = deps.vault.unwrap(
    { wrapped: version.wrappedKey, generation: version.keyGeneration },
    version.id,
  );
  const box = await boxKey(fileKey, input.boxKey, licence.id);
  await noteOnDevice(tx, licence.id, { keyGivenAt: now, offlineUntil, statement });
  await record(deps, tx, {
    action: 'key.given',
    outcome: 'granted',
    ...aboutOpen(opened, actor, deps),
    details: { offlineUntil },
    personal: { address: actor.address, ...whereabouts(deps, actor.from) },
  });
  return { outcome: 'granted', statement, box, offlineUntil };
}
