import 'server-only';
import type { MediaType } from '@/core/content/media-types';
import { fileSize } from '@/core/age/chunks';
import { isAppError } from '@/core/base/errors';
import { newId, type DocumentId, type UploadId } from '@/core/base/ids';
import type { FinishUploadInput, SameDocument } from '@/contracts/document';
import type { Reading, Transaction } from '@/server/db/database';
import {
  insertDocument,
  documentsHolding,
  referenceTaken,
} from '@/server/repositories/documents/document-repository';
import {
  insertVersion,
  nextVersionNumber,
  openVersion,
} from '@/server/repositories/documents/version-repository';
import {
  findUpload,
  notePages,
  removeUpload,
  type UploadRow,
} from '@/server/repositories/documents/upload-repository';
import { reaches } from '@/core/policy/permissions';
import { renewDaysAtMost } from '@/server/repositories/access/effective-end';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { discardUpload } from '@/server/services/documents/discard-upload';
import { needDocument } from '@/server/services/access/revoke-document';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { showFile, type Shown } from '@/server/services/documents/show-file';

/** Somebody's own upload. @throws ServiceError `CONFLICT` where there is none any more */
export async function ownUpload(
  db: Reading | Transaction,
  actor: StaffActor,
  id: UploadId,
): Promise<UploadRow> {
  const upload = await findUpload(db, id, actor.id);
  if (upload === null) throw new ServiceError('upload-over');
  return upload;
}

/** What shows of a file once it is whole. */
type Inspected = Pick<Shown, 'pages' | 'pagesBytes'> & { readonly mediaType: MediaType };

/** Opens the sealed file once, to see that it can be shown; where it cannot, nothing is left behind. */
export async function inspectUpload(
  deps: Deps,
  upload: UploadRow,
): Promise<Shown & { readonly mediaType: MediaType }> {
  const { mediaType } = upload;
  if (upload.receivedBytes !== upload.declaredBytes || mediaType === null)
    throw new ServiceError('file-incomplete', {
      receivedBytes: upload.receivedBytes,
    });
  const fileKey = deps.vault.unwrap(
    { wrapped: upload.wrappedKey, generation: upload.keyGeneration },
    upload.versionId,
  );
  const { blobKey, headerBytes, declaredBytes: bytes, pagesBytes, isLocal } = upload;
  if (isLocal) throw new ServiceError('content-elsewhere');
  const files = { blobKey, headerBytes, bytes, pagesBytes, isLocal };
  const asker = { who: upload.staffId };
  const shown = await showFile(deps, files, mediaType, fileKey, asker).catch(
    async (error: unknown) => {
      // What came is kept where the server alone was at fault: it can be looked at again.
      if (isAppError(error) && error.name === 'ContentError') await discardUpload(deps, upload);
      throw error;
    },
  );
  // Whoever looks first and protects then has the pages made once.
  if (shown.pagesBytes !== pagesBytes)
    await deps.db.write((tx) => notePages(tx, upload.id, shown.pagesBytes));
  return { ...shown, mediaType };
}

/** The document that an upload's content is already, among those somebody answers for; `null`: none. */
export async function sameDocument(
  db: Reading | Transaction,
  actor: StaffActor,
  { contentMac }: Pick<UploadRow, 'contentMac'>,
): Promise<SameDocument | null> {
  const found = (await documentsHolding(db, contentMac)).find(({ ownerId, deputyId }) =>
    reaches(actor, { owner: ownerId, deputy: deputyId }),
  );
  if (found === undefined) return null;
  const { reference, title, revokedAt, number, isCurrent } = found;
  return { reference, title, revoked: revokedAt !== null, older: isCurrent ? null : number };
}

/** The same, for a file that is taken in: what lies there is whole and stays. */
async function inspect(deps: Deps, upload: UploadRow): Promise<Inspected> {
  const { pages, pagesBytes, mediaType } = await inspectUpload(deps, upload);
  await deps.blobs.finish(upload.blobKey, fileSize(upload.headerBytes, upload.declaredBytes));
  return { pages, pagesBytes, mediaType };
}

/**
 * The version that an upload becomes, as the upload stands in the same transaction: a rotation may
 * have wrapped its key anew.
 */
export function versionOf(
  upload: UploadRow,
  actor: StaffActor,
  documentId: DocumentId,
  number: number,
  inspected: Inspected,
  now: number,
) {
  return {
    id: upload.versionId,
    documentId,
    number,
    fileName: upload.fileName,
    ...inspected,
    bytes: upload.declaredBytes,
    contentMac: upload.contentMac,
    blobKey: upload.blobKey,
    headerBytes: upload.headerBytes,
    wrappedKey: upload.wrappedKey,
    keyGeneration: upload.keyGeneration,
    recoveryKey: upload.recoveryKey,
    isLocal: upload.isLocal,
    createdAt: now,
    createdBy: actor.id,
  };
}

/** What every entry about a version that was taken in says; its key was used to look inside. */
function aboutVersion(upload: UploadRow, actor: StaffActor, document: DocumentId, now: number) {
  return {
    outcome: 'done' as const,
    actor: { kind: 'staff' as const, id: actor.id },
    occurredAt: now,
    document,
    version: upload.versionId,
  };
}

/**
 * Makes a finished upload a document.
 *
 * @throws ServiceError `CONFLICT` where bytes are missing, the reference is taken or the same file is
 * a document already; ContentError
 */
export async function protectDocument(
  deps: Deps,
  actor: StaffActor,
  input: FinishUploadInput,
): Promise<{ readonly id: DocumentId }> {
  return deps.turns.wholes(input.id, () => becomeDocument(deps, actor, input));
}

/**
 * A document that an upload becomes, with its first version.
 *
 * @throws ServiceError `reference-taken`
 */
export async function insertProtected(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  {
    id,
    upload,
    version,
    reference,
    title,
    folderId,
    markingId,
    recoverable,
  }: Omit<FinishUploadInput, 'id' | 'again'> & {
    readonly id: DocumentId;
    readonly upload: UploadRow;
    readonly version: Parameters<typeof insertDocument>[2];
  },
): Promise<void> {
  if (await referenceTaken(tx, reference)) throw new ServiceError('reference-taken', { reference });
  const now = version.createdAt;
  await insertDocument(
    tx,
    {
      id,
      reference,
      title,
      folderId: folderId ?? null,
      markingId: markingId ?? null,
      ownerId: actor.id,
      versionId: upload.versionId,
      recoverable: recoverable ?? true,
      createdAt: now,
    },
    version,
  );
  await renewDaysAtMost(tx, [id]);
  await removeUpload(tx, upload.id);
  await record(deps, tx, {
    action: 'document.protected',
    ...aboutVersion(upload, actor, id, now),
    details: {
      reference,
      pages: version.pages,
      bytes: upload.declaredBytes,
      ...(upload.isLocal ? { local: true as const } : {}),
    },
  });
}

async function becomeDocument(
  deps: Deps,
  actor: StaffActor,
  input: FinishUploadInput,
): Promise<{ readonly id: DocumentId }> {
  const upload = await ownUpload(deps.db.read, actor, input.id);
  const { reference, again = false } = input;
  if (upload.documentId !== null) throw new ServiceError('upload-is-version');
  if (await referenceTaken(deps.db.read, reference))
    throw new ServiceError('reference-taken', { reference });
  const needNew = async (db: Reading | Transaction): Promise<void> => {
    const same = again ? null : await sameDocument(db, actor, upload);
    if (same === null) return;
    const { title: known, reference: of, older } = same;
    throw new ServiceError('same-file', { title: known, same: of, older });
  };
  await needNew(deps.db.read);
  const inspected = await inspect(deps, upload);
  const id = newId('document', deps.random);
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    await needNew(tx);
    const fresh = await ownUpload(tx, actor, input.id);
    const version = versionOf(fresh, actor, id, 1, inspected, now);
    await insertProtected(deps, tx, actor, { ...input, id, upload: fresh, version });
    await record(deps, tx, {
      action: 'key.unwrapped',
      ...aboutVersion(upload, actor, id, now),
      details: { for: 'inspection' },
    });
  });
  return { id };
}

/**
 * Makes a finished upload the next version of its document. It opens from now on, on every grant
 * there is; the versions before it stay in the vault. An open that is going on keeps its version.
 *
 * @throws ServiceError `CONFLICT` where bytes are missing or the key was destroyed, `NOT_ALLOWED`; ContentError
 */
export async function reviseDocument(
  deps: Deps,
  actor: StaffActor,
  input: { readonly id: UploadId },
): Promise<{ readonly id: DocumentId; readonly number: number }> {
  return deps.turns.wholes(input.id, () => becomeVersion(deps, actor, input));
}

async function becomeVersion(
  deps: Deps,
  actor: StaffActor,
  input: { readonly id: UploadId },
): Promise<{ readonly id: DocumentId; readonly number: number }> {
  const upload = await ownUpload(deps.db.read, actor, input.id);
  const { documentId } = upload;
  if (documentId === null) throw new ServiceError('upload-is-document');
  const inspected = await inspect(deps, upload);
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const { version } = await needDocument(tx, actor, documentId);
    if (version.wrappedKey === null) throw new ServiceError('protect-as-new');
    const number = await nextVersionNumber(tx, documentId);
    await insertVersion(
      tx,
      versionOf(await ownUpload(tx, actor, input.id), actor, documentId, number, inspected, now),
    );
    await openVersion(tx, documentId, upload.versionId);
    await removeUpload(tx, upload.id);
    const about = aboutVersion(upload, actor, documentId, now);
    await record(
      deps,
      tx,
      { action: 'key.unwrapped', ...about, details: { for: 'inspection' } },
      {
        action: 'document.revised',
        ...about,
        details: { number, pages: inspected.pages, bytes: upload.declaredBytes },
      },
    );
    return { id: documentId, number };
  });
}

/** Ends an upload and removes what was received. */
export async function cancelUpload(
  deps: Deps,
  actor: StaffActor,
  input: { readonly id: UploadId },
): Promise<Record<string, never>> {
  await deps.turns.wholes(input.id, async () => {
    await discardUpload(deps, await ownUpload(deps.db.read, actor, input.id));
  });
  return {};
}
