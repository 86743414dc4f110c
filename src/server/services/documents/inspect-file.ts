import 'server-only';
import { windowState } from '@/core/policy/decide';
import type { FileFound, InspectInput } from '@/contracts/files';
import { grantsOf, toFacts } from '@/server/repositories/access/grant-reader';
import { findVersion } from '@/server/repositories/documents/file-repository';
import { findLink } from '@/server/repositories/reading/reader-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { recordAlone } from '@/server/services/base/record';

/** What is known here of a protected file, from what its head says. The file itself never comes here. */
export async function findFile(
  deps: Pick<Deps, 'db' | 'clock'>,
  input: InspectInput,
): Promise<FileFound | null> {
  const found = await findVersion(deps.db.read, input.version);
  if (found === null) return null;
  const { document, version } = found;
  const now = deps.clock.now();
  const token =
    input.link === null ? undefined : /\/r\/([0-9a-hjkmnp-tv-z]{24})$/.exec(input.link)?.[1];
  const link = token === undefined ? null : await findLink(deps.db.read, token);
  const rows = await grantsOf(deps.db.read, { document: document.id });
  return {
    document: {
      id: document.id,
      reference: document.reference,
      title: document.title,
      revoked: document.revokedAt !== null,
    },
    version: {
      number: version.number,
      current: version.id === document.versionId,
      protectedAt: version.createdAt,
      bytes: version.bytes,
      keyDestroyed: version.wrappedKey === null,
      recoverable: version.recoveryKey !== null,
    },
    madeFor:
      link === null
        ? null
        : {
            dispatch: link.dispatch.id,
            reference: link.dispatch.reference,
            address: link.addressee,
            sentAt: link.dispatch.sentAt,
            sentBy: link.senderName,
          },
    grants: rows.map(({ grant, recipient }) => ({
      address: recipient.address,
      state: recipient.blocked ? 'blocked' : (windowState(toFacts(grant), now) ?? 'live'),
      until: grant.untilAt,
    })),
  };
}

/** The same for a member of staff, and on the record. */
export async function inspectForStaff(
  deps: Deps,
  actor: StaffActor,
  input: InspectInput,
): Promise<{ readonly found: FileFound | null }> {
  const found = await findFile(deps, input);
  await recordAlone(deps, {
    action: 'file.inspected',
    outcome: found === null ? 'failed' : 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    ...(found === null ? {} : { document: found.document.id, version: input.version }),
  });
  return { found };
}
