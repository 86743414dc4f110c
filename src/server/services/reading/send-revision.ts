import 'server-only';
import { newId } from '@/core/base/ids';
import { MAX_REVISION, MOST_WAITING } from '@/core/content/revision';
import type { OwnRevision } from '@/contracts/own-revision';
import type { SendRevisionInput } from '@/contracts/revisions';
import type { Transaction } from '@/server/db/database';
import { revisionMail } from '@/server/mail/revision-mail';
import {
  insertVersion,
  nextVersionNumber,
} from '@/server/repositories/documents/version-repository';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import {
  insertRevision,
  waitingRevisions,
} from '@/server/repositories/reading/revision-repository';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { findStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { mailAddressOf } from '@/server/services/base/mail-address';
import { record } from '@/server/services/base/record';
import { takeInWhole, type TakenIn } from '@/server/services/documents/take-in-whole';
import { ownRevisions } from '@/server/services/reading/own-revisions';
import {
  aboutOpen,
  decideAgain,
  needLicence,
  recordWithheld,
  type Opened,
  type Refused,
} from '@/server/services/reading/open-licence';

/** A file as it comes, and how many bytes were said to come. */
export type Sent = { readonly bytes: number; readonly body: AsyncIterable<Uint8Array> };

/**
 * Takes in a changed file of a document that somebody has open. It is kept as a version beside the
 * one they had; whoever answers for the document is told, and decides.
 *
 * @throws ContentError; ServiceError `TOO_LARGE`, `TOO_MANY`, `CONFLICT` where too many wait already
 */
export async function sendRevision(
  deps: Deps,
  actor: ReaderActor,
  input: SendRevisionInput,
  { bytes, body }: Sent,
): Promise<{ readonly revisions: readonly OwnRevision[] } | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const { licence, document } = opened;
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'revise');
  if (decision.outcome === 'refused')
    return recordWithheld(deps, actor, opened, 'revise', decision);
  if (bytes > MAX_REVISION) throw new ServiceError('revision-too-large');
  const wait = await deps.limits.revisions(licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  await takeInWhole(
    deps,
    {
      versionId: newId('version', deps.random),
      fileName: input.name,
      bytes,
      body,
      recoverable: document.recoverable,
      who: licence.recipientId,
    },
    (taken) =>
      deps.db.write(async (tx) => {
        // It took a while to come: access may have ended meanwhile.
        const still = await decideAgain(deps, tx, actor, opened, 'revise');
        if (still.outcome === 'refused') throw new ServiceError('ended-meanwhile');
        await keepRevision(deps, tx, actor, opened, input, taken);
      }),
  );
  return { revisions: await ownRevisions(deps, document.id, licence.recipientId) };
}

async function keepRevision(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  opened: Opened,
  { name, note }: SendRevisionInput,
  taken: TakenIn,
): Promise<void> {
  const { licence, document, version } = opened;
  if ((await waitingRevisions(tx, document.id, licence.recipientId)) >= MOST_WAITING)
    throw new ServiceError('revisions-waiting');
  const now = deps.clock.now();
  const number = await nextVersionNumber(tx, document.id);
  const id = newId('revision', deps.random);
  await insertVersion(tx, {
    ...taken,
    documentId: document.id,
    number,
    fileName: name,
    createdAt: now,
    createdBy: null,
  });
  await insertRevision(tx, {
    id,
    documentId: document.id,
    versionId: taken.id,
    basedOn: version.id,
    recipientId: licence.recipientId,
    note,
    sentAt: now,
  });
  const owner = await findStaff(tx, document.ownerId);
  const sender = await findRecipientByAddress(tx, actor.address);
  if (owner !== null)
    await queueMail(tx, [
      {
        id: newId('message', deps.random),
        toAddress: owner.email,
        replyTo: mailAddressOf(sender),
        ...revisionMail({
          who: sender === null || sender.name === '' ? actor.address : sender.name,
          title: document.title,
          note,
          link: `${deps.publicUrl}/documents/${document.id}/revisions`,
        }),
        state: 'waiting',
        urgent: true,
        nextAttemptAt: now,
        createdAt: now,
      },
    ]);
  const about = { ...aboutOpen(opened, actor, deps), version: taken.id };
  await record(
    deps,
    tx,
    { action: 'key.unwrapped', outcome: 'done', ...about, details: { for: 'inspection' } },
    {
      action: 'revision.sent',
      outcome: 'granted',
      ...about,
      details: { revision: id, number, pages: taken.pages, bytes: taken.bytes },
      ...(note === '' ? {} : { personal: { text: note } }),
    },
  );
}
