import 'server-only';
import type { DispatchId, DocumentId, RecipientId } from '@/core/base/ids';
import { dispatchShownTo, findLink } from '@/server/repositories/reading/reader-repository';
import { newestDispatchTo } from '@/server/repositories/reading/sent-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';

type Link = NonNullable<Awaited<ReturnType<typeof findLink>>>;

/** How somebody came to a document: by a link, or from the list of what they were sent. */
export type Way = {
  /** The dispatch that led here; null: from the list, where none of it was sent to them. */
  readonly dispatch: DispatchId | null;
  /** Whose link it was, where it is not the asker's own. */
  readonly linkOf: RecipientId | null;
  readonly sender: { readonly name: string; readonly email: string } | null;
};

/** Whose link this is, where it is not the asker's own: a link that was forwarded can be followed by it. */
export function linkOfAnother(
  { link, kind, addressee }: Link,
  actor: Pick<ReaderActor, 'address'>,
): RecipientId | null {
  return kind === 'person' && addressee !== actor.address ? link.recipientId : null;
}

/** By a link. */
export function byLink(link: Link, actor: Pick<ReaderActor, 'address'>): Way {
  return {
    dispatch: link.dispatch.id,
    linkOf: linkOfAnother(link, actor),
    sender: { name: link.senderName, email: link.senderEmail },
  };
}

/**
 * The way to a document: by the link of this token, or, without one, from the list.
 *
 * @throws ServiceError `NOT_FOUND` where the token leads nowhere
 */
export async function wayTo(
  deps: Pick<Deps, 'db'>,
  actor: Pick<ReaderActor, 'address'>,
  { token, document }: { readonly token: string | null; readonly document: DocumentId },
): Promise<Way> {
  if (token !== null) {
    const link = await findLink(deps.db.read, token);
    if (link === null) throw new ServiceError('link-unknown');
    return byLink(link, actor);
  }
  const dispatch = await newestDispatchTo(deps.db.read, actor.address, document);
  const shown =
    dispatch === null ? null : await dispatchShownTo(deps.db.read, dispatch, actor.address);
  return {
    dispatch,
    linkOf: null,
    sender: shown === null ? null : { name: shown.senderName, email: shown.senderEmail },
  };
}
