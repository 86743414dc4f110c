import 'server-only';
import type { MediaType } from '@/core/content/media-types';
import { fileSize } from '@/core/age/chunks';
import type { VersionId } from '@/core/base/ids';
import { carriesFile, isInTheClear, payloadName, protectedFileName } from '@/core/policy/delivery';
import { reaches } from '@/core/policy/permissions';
import { envelope } from '@/core/wrapper/write';
import type { TakeFileInput } from '@/contracts/dispatch';
import type { OutboxRow } from '@/server/repositories/mailing/mail-repository';
import { findFileFacts, type FileFacts } from '@/server/repositories/documents/file-repository';
import { clearFileOf } from '@/server/services/documents/clear-files';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needAllowed } from '@/server/services/policy/within-rules';
import { recordAlone } from '@/server/services/base/record';

/** A protected file that is made while it is read: however large, it is never whole in memory. */
export type ProtectedFile = {
  readonly name: string;
  readonly mediaType: MediaType;
  readonly bytes: number;
  readonly read: () => AsyncGenerator<Uint8Array, void>;
};

/** Whatever is inside: what carries it is a PDF that any viewer opens. */
const WRAPPER: MediaType = 'application/pdf';

type FileDeps = Pick<Deps, 'blobs' | 'covers' | 'random' | 'clock' | 'publicUrl'>;

/** The organisation a file is made for: the recipient's, or else the domain of their address. */
function addressee({ recipient }: FileFacts): string {
  return recipient.organisation === ''
    ? recipient.address.slice(recipient.address.indexOf('@') + 1)
    : recipient.organisation;
}

/** @throws ServiceError `NOT_FOUND` where the content is not in the store */
async function protectedFileOf(deps: FileDeps, facts: FileFacts): Promise<ProtectedFile> {
  const { dispatch, document, version, recipient } = facts;
  // Its cover page would lead nowhere.
  if (facts.linkOffAt !== null) throw new ServiceError('link-off');
  const title = dispatch.titleOnCover && !facts.hidesTitles ? document.title : null;
  const name = payloadName(document.reference);
  const cover = await deps.covers.draw(
    {
      organisation: facts.organisation,
      sender: facts.sender,
      senderAddress: facts.senderAddress,
      reference: document.reference,
      title,
      sentTo: addressee(facts),
      link: `${deps.publicUrl}/r/${facts.token}`,
      language: recipient.language,
      createdAt: deps.clock.now(),
    },
    deps.random(16),
    name,
  );
  const payloadBytes = fileSize(version.headerBytes, version.bytes);
  if ((await deps.blobs.sizeOf(version.blobKey)) !== payloadBytes)
    throw new ServiceError('content-not-whole');
  const { head, tail } = envelope(cover, payloadBytes, name);
  return {
    name: protectedFileName({
      reference: document.reference,
      title,
      organisation: addressee(facts),
    }),
    mediaType: WRAPPER,
    bytes: head.length + payloadBytes + tail.length,
    read: async function* () {
      yield head;
      yield* deps.blobs.read(version.blobKey);
      yield tail;
    },
  };
}

/** The files that travel with a message, made when it is delivered: protected, unless it was sent in the clear. */
export async function attachedTo(
  deps: FileDeps & Pick<Deps, 'db' | 'vault' | 'recorder'>,
  { dispatchId, recipientId, attached }: Pick<OutboxRow, 'dispatchId' | 'recipientId' | 'attached'>,
): Promise<ProtectedFile[]> {
  if (dispatchId === null || recipientId === null) return [];
  const found = await Promise.all(
    attached.map((version: VersionId) =>
      findFileFacts(deps.db.read, { dispatch: dispatchId, recipient: recipientId, version }),
    ),
  );
  return Promise.all(
    found.flatMap((facts) =>
      facts === null
        ? []
        : [
            isInTheClear(facts.dispatch.form)
              ? clearFileOf(deps, facts)
              : protectedFileOf(deps, facts),
          ],
    ),
  );
}

/**
 * A protected file for a member of staff to carry, by whatever means. It opens nothing that its
 * addressee was not given, and leaves the same record as a mailed one.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`, `CONFLICT` where nobody could open it
 */
export async function takeProtectedFile(
  deps: Deps,
  actor: StaffActor,
  input: TakeFileInput,
): Promise<ProtectedFile> {
  const facts = await findFileFacts(deps.db.read, {
    dispatch: input.id,
    recipient: input.recipient,
    document: input.document,
  });
  if (facts === null) throw new ServiceError('not-sent-to-person');
  const { dispatch, document, version, recipient } = facts;
  if (!carriesFile(dispatch.form)) await deps.db.write((tx) => needAllowed(tx, { form: 'file' }));
  if (isInTheClear(dispatch.form)) throw new ServiceError('no-protected-file');
  if (
    !reaches(actor, { sender: dispatch.sentBy, owner: document.ownerId, deputy: document.deputyId })
  )
    throw new ServiceError('file-of-others');
  if (recipient.kind === 'link' && dispatch.sentBy !== actor.id)
    throw new ServiceError('file-holds-link');
  if (document.revokedAt !== null || version.wrappedKey === null)
    throw new ServiceError('opens-for-nobody');
  if (version.damagedAt !== null) throw new ServiceError('content-damaged');
  const file = await protectedFileOf(deps, facts);
  await recordAlone(deps, {
    action: 'file.taken',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    dispatch: dispatch.id,
    document: document.id,
    version: version.id,
    recipient: recipient.id,
    grant: facts.grantId,
    details: { bytes: file.bytes },
  });
  return file;
}
