import 'server-only';
import type { CommentView, ExportCommentsInput } from '@/contracts/comments';
import { findDocument } from '@/server/repositories/documents/document-repository';
import type { Note } from '@/core/pages/page-source';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { recordAlone } from '@/server/services/base/record';
import { documentComments } from '@/server/services/comments/staff-comments';
import { annotatedCopy } from '@/server/services/documents/check-document';

type Exported = {
  readonly name: string;
  readonly type: 'application/json' | 'application/pdf';
  readonly bytes: Uint8Array;
};

/** What is written beside a remark: who said it, and that it is settled. */
function noteOf({ page, place, by, text, madeAt, resolvedAt, answers }: CommentView): Note {
  return {
    page,
    place,
    by,
    text: text ?? '',
    madeAt,
    isResolved: resolvedAt !== null,
    isAnswer: answers !== null,
  };
}

/**
 * The comments of a document for another tool: as JSON, or as annotations in a copy of the newest
 * version (ISO 32000-2, 12.5).
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function exportComments(
  deps: Deps,
  actor: StaffActor,
  { id, as }: ExportCommentsInput,
): Promise<Exported> {
  const { comments } = await documentComments(deps, actor, { id });
  const found = await findDocument(deps.db.read, id);
  if (found === null) throw new ServiceError('no-document');
  const { document, version } = found;
  const newest = comments.filter((each) => each.version === version.number);
  const exported: Exported =
    as === 'json'
      ? {
          name: `${document.reference} comments.json`,
          type: 'application/json',
          bytes: jsonOf(document, comments),
        }
      : {
          name: `${document.reference} comments.pdf`,
          type: 'application/pdf',
          bytes: await annotatedCopy(deps, actor, id, newest.map(noteOf)),
        };
  await recordAlone(deps, {
    action: 'comments.exported',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    document: id,
    details: { comments: as === 'json' ? comments.length : newest.length, as },
  });
  return exported;
}

function jsonOf(
  { reference, title }: { readonly reference: string; readonly title: string },
  comments: readonly CommentView[],
): Uint8Array {
  const body = { document: reference, title, comments: comments.map(plain) };
  return Buffer.from(`${JSON.stringify(body, null, 2)}\n`);
}

/** A comment as another tool reads it; moments as ISO 8601, places in shares of the page. */
function plain({ own: _own, madeAt, changedAt, resolvedAt, ...comment }: CommentView) {
  const moment = (at: number | null) => (at === null ? null : new Date(at).toISOString());
  return {
    ...comment,
    madeAt: moment(madeAt),
    changedAt: moment(changedAt),
    resolvedAt: moment(resolvedAt),
  };
}
