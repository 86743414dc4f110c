import 'server-only';
import type { DispatchDetail, EventMark } from '@/contracts/dispatch';
import { reaches } from '@/core/policy/permissions';
import type { DispatchId, DocumentId, RecipientId } from '@/core/base/ids';
import { findDispatch, sharedLinkOf } from '@/server/repositories/dispatching/dispatch-repository';
import { listMarkings, listSavedTerms } from '@/server/repositories/documents/filing-repository';
import { marksOf } from '@/server/repositories/ledger/ledger-reader';
import { listRequests } from '@/server/services/requests/answer-requests';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { effectOfRevoke } from '@/server/services/access/revoke-effect';
import { grantRows } from '@/server/services/access/grant-rows';
import { handedOver } from '@/server/services/dispatching/mail-progress';
import { recordAlone } from '@/server/services/base/record';

const MARK_KINDS: Readonly<Record<string, EventMark['kind']>> = {
  'document.printed': 'printed',
  'grant.changed': 'changed',
};

function toMark({
  recipientId,
  documentId,
  at,
  action,
  outcome,
}: Awaited<ReturnType<typeof marksOf>>[number]): EventMark[] {
  if (recipientId === null || at === null) return [];
  return [
    {
      recipientId: recipientId as RecipientId,
      documentId: documentId as DocumentId | null,
      at: Date.parse(at),
      kind: outcome === 'refused' ? 'refused' : (MARK_KINDS[action ?? ''] ?? 'opened'),
    },
  ];
}

/** Grants of which it is told in passing what revoking them would do: it takes as long again as reading them. */
const MOST_TOLD = 500;

/** One dispatch with its grants. */
export async function viewDispatch(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: DispatchId },
): Promise<DispatchDetail> {
  const found = await findDispatch(deps.db.read, id);
  if (found === null) throw new ServiceError('no-dispatch');
  await recordAlone(deps, {
    action: 'staff.viewed',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    dispatch: id,
  });
  const { dispatch, sentBy } = found;
  const grants = await grantRows(deps, actor, { dispatch: id });
  return {
    id,
    reference: dispatch.reference,
    subject: dispatch.subject,
    note: dispatch.note,
    noteInMail: dispatch.noteInMail,
    watermark: dispatch.watermark,
    delivery: dispatch.delivery,
    form: dispatch.form,
    titleOnCover: dispatch.titleOnCover,
    reason: dispatch.reason,
    mayAdd: reaches(actor, { sender: dispatch.sentBy }),
    sharedLink: await sharedLinkOf(deps.db.read, id),
    sentAt: dispatch.sentAt,
    sentBy,
    grants,
    ifRevoked:
      grants.length > MOST_TOLD
        ? null
        : await effectOfRevoke(
            deps,
            actor,
            grants.filter(({ revokedAt }) => revokedAt === null),
          ),
    savedTerms: await listSavedTerms(deps.db.read),
    markings: await listMarkings(deps.db.read),
    marks: (await marksOf(deps.db.read, id)).flatMap(toMark),
    requests: (await listRequests(deps, actor, id)).length,
    mail: await handedOver(deps.db.read, id),
  };
}
