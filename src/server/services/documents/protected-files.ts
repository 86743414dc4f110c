import 'server-only';
import type { MediaType } from '@/core/content/media-types';
import { fileSize } from '@/core/age/chunks';
import type { DispatchId, DocumentId, VersionId } from '@/core/base/ids';
import type { LedgerEvent } from '@/core/ledger/entry';
import {
  carriesFile,
  isInTheClear,
  payloadName,
  protectedFileName,
  type DeliveryForm,
} from '@/core/policy/delivery';
import type { Transaction } from '@/server/db/database';
import { reaches } from '@/core/policy/permissions';
import { envelope } from '@/core/wrapper/write';
import type { TakeFileInput } from '@/contracts/dispatch';
import type { OutboxRow } from '@/server/repositories/mailing/mail-repository';
import {
  findFileFacts,
  findSharedFileFacts,
  type FileFacts,
  type SharedFileFacts,
} from '@/server/repositories/documents/file-repository';
import {
  findDispatch,
  findLinkOf,
  insertLink,
} from '@/server/repositories/dispatching/dispatch-repository';
import { newLink } from '@/server/services/access/give-grants';
import { clearFileOf } from '@/server/services/documents/clear-files';
import { needHere } from '@/server/services/documents/sealed-source';
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

/** Whom a file is made for, as its cover page and its name say it. */
type MadeFor = {
  /** The organisation; `null`: everybody the dispatch was sent to. */
  readonly organisation: string | null;
  readonly language: string | null;
};

const EVERYBODY: MadeFor = { organisation: null, language: null };

/** The recipient's organisation, or else the domain of their address. */
function oneOf({ recipient }: FileFacts): MadeFor {
  const { organisation, address, language } = recipient;
  return {
    organisation: organisation === '' ? address.slice(address.indexOf('@') + 1) : organisation,
    language,
  };
}

/** @throws ServiceError `NOT_FOUND` where the content is not in the store */
async function protectedFileOf(
  deps: FileDeps,
  facts: SharedFileFacts,
  madeFor: MadeFor,
): Promise<ProtectedFile> {
  const { dispatch, document, version } = facts;
  needHere(version);
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
      sentTo: madeFor.organisation,
      link: `${deps.publicUrl}/r/${facts.token}`,
      language: madeFor.language,
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
      organisation: madeFor.organisation ?? `recipients of ${dispatch.reference}`,
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

/** The protected file for one person. @throws ServiceError where its content is not in the store */
export function protectedFileFor(deps: FileDeps, facts: FileFacts): Promise<ProtectedFile> {
  return protectedFileOf(deps, facts, oneOf(facts));
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
              : protectedFileFor(deps, facts),
          ],
    ),
  );
}

/**
 * A protected file for a member of staff to carry, by whatever means: for one recipient, or one for
 * everybody the dispatch was sent to. It opens nothing that anyone was not given, and leaves the
 * same record as a mailed one.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`, `CONFLICT` where nobody could open it
 */
export async function takeProtectedFile(
  deps: Deps,
  actor: StaffActor,
  { id, document, recipient }: TakeFileInput,
): Promise<ProtectedFile> {
  if (recipient === undefined) {
    const facts = await sharedFacts(deps, actor, { dispatch: id, document });
    return take(deps, actor, facts, EVERYBODY, {});
  }
  const facts = await findFileFacts(deps.db.read, { dispatch: id, document, recipient });
  if (facts === null) throw new ServiceError('not-sent-to-person');
  if (facts.recipient.kind === 'link' && facts.dispatch.sentBy !== actor.id)
    throw new ServiceError('file-holds-link');
  const { form } = facts.dispatch;
  if (!carriesFile(form)) await deps.db.write((tx) => needFileToo(tx, form));
  return take(deps, actor, facts, oneOf(facts), { recipient, grant: facts.grantId });
}

/** Whether a dispatch may be carried as a file, though it was sent otherwise. @throws ServiceError */
async function needFileToo(tx: Transaction, form: DeliveryForm): Promise<void> {
  if (carriesFile(form)) return;
  await needAllowed(tx, { form: 'file' });
  if (isInTheClear(form)) throw new ServiceError('no-protected-file');
}

/** What a file for everybody says. Its link is made with the first such file of a dispatch. */
async function sharedFacts(
  deps: Deps,
  actor: StaffActor,
  of: { readonly dispatch: DispatchId; readonly document: DocumentId },
): Promise<SharedFileFacts> {
  const { dispatch } = of;
  return deps.db.write(async (tx) => {
    const found = await findDispatch(tx, dispatch);
    if (found === null) throw new ServiceError('no-dispatch');
    if (!reaches(actor, { sender: found.dispatch.sentBy }))
      throw new ServiceError('dispatch-of-others');
    await needFileToo(tx, found.dispatch.form);
    if ((await findLinkOf(tx, dispatch, null)) === null)
      await insertLink(tx, newLink(deps, dispatch, null, deps.clock.now()));
    const facts = await findSharedFileFacts(tx, of);
    if (facts === null) throw new ServiceError('not-sent-in-dispatch');
    return facts;
  });
}

async function take(
  deps: Deps,
  actor: StaffActor,
  facts: SharedFileFacts,
  madeFor: MadeFor,
  whose: Pick<LedgerEvent, 'recipient' | 'grant'>,
): Promise<ProtectedFile> {
  const { dispatch, document, version } = facts;
  if (
    !reaches(actor, { sender: dispatch.sentBy, owner: document.ownerId, deputy: document.deputyId })
  )
    throw new ServiceError('file-of-others');
  if (document.revokedAt !== null || version.wrappedKey === null)
    throw new ServiceError('opens-for-nobody');
  if (version.damagedAt !== null) throw new ServiceError('content-damaged');
  const file = await protectedFileOf(deps, facts, madeFor);
  await recordAlone(deps, {
    action: 'file.taken',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    dispatch: dispatch.id,
    document: document.id,
    version: version.id,
    ...whose,
    details: { bytes: file.bytes },
  });
  return file;
}
