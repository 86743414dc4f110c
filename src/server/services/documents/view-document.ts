import 'server-only';
import type { DocumentDetail } from '@/contracts/document-detail';
import { reaching } from '@/core/policy/levels';
import { reaches } from '@/core/policy/permissions';
import type { DocumentId } from '@/core/base/ids';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { waitingRevisions } from '@/server/repositories/reading/revision-repository';
import { versionsOf } from '@/server/repositories/documents/version-repository';
import { folderParents } from '@/server/repositories/policy/ceiling-repository';
import { listMarkings } from '@/server/repositories/documents/filing-repository';
import { listColleagues } from '@/server/repositories/staff/staff-repository';
import { viewCeilings } from '@/server/services/policy/manage-ceilings';
import { viewDefaults } from '@/server/services/policy/manage-defaults';
import { viewFolders } from '@/server/services/filing/manage-filing';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { grantRows } from '@/server/services/access/grant-rows';
import { peopleReached } from '@/server/services/access/reach-now';
import { readsOnOf } from '@/server/services/access/revoke-effect';
import { recordAlone } from '@/server/services/base/record';

/**
 * One document with everybody it was given to. Looking is recorded, since the record shows who
 * looked at whose access.
 */
export async function viewDocument(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: DocumentId },
): Promise<DocumentDetail> {
  const found = await findDocument(deps.db.read, id);
  if (found === null) throw new ServiceError('no-document');
  await recordAlone(deps, {
    action: 'staff.viewed',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    document: id,
  });
  const { document, version, ownerName } = found;
  const [folders, markings, colleagues, versions] = await Promise.all([
    viewFolders(deps),
    listMarkings(deps.db.read),
    listColleagues(deps.db.read),
    versionsOf(deps.db.read, id),
  ]);
  const [ceilings, defaults, parents] = await Promise.all([
    viewCeilings(deps),
    viewDefaults(deps),
    folderParents(deps.db.read),
  ]);
  const standing = { document: id, marking: document.markingId, folder: document.folderId };
  const mayChange = reaches(actor, { owner: document.ownerId, deputy: document.deputyId });
  return {
    id,
    reference: document.reference,
    title: document.title,
    ownerName,
    protectedAt: document.createdAt,
    revokedAt: document.revokedAt,
    isLocal: version.isLocal,
    keyDestroyed: version.wrappedKey === null,
    damaged: version.damagedAt !== null,
    fileName: version.fileName,
    pages: version.pages,
    bytes: version.bytes,
    filed: {
      folderId: document.folderId,
      markingId: document.markingId,
      ownerId: document.ownerId,
      deputyId: document.deputyId,
      attributes: document.attributes,
    },
    folders,
    markings,
    colleagues,
    versions,
    waiting: mayChange ? await waitingRevisions(deps.db.read, id) : 0,
    mayChange,
    ceilings: reaching(standing, ceilings, parents),
    defaults: reaching(standing, defaults, parents),
    readsOn: mayChange ? await readsOnOf(deps, { document: id }) : [],
    reached: await peopleReached(deps, id),
    grants: await grantRows(deps, actor, { document: id }),
  };
}
