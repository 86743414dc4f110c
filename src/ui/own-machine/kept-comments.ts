import type { OfflineComment } from '@/contracts/comments';
import type { CommentId, DocumentId } from '@/core/base/ids';
import { inStore } from '@/ui/own-machine/reader-store';

/** A comment that was made without a connection. */
export type KeptComment = OfflineComment & {
  readonly document: DocumentId;
  readonly version: string;
  /** Who wrote it: several may use one browser. */
  readonly address: string;
  /** It was handed in, and cannot be put beside the document. */
  readonly isRefused: boolean;
};

/** Comments that are kept in this browser, in the order they were made. */
export async function keptComments(): Promise<KeptComment[]> {
  const all = await inStore(
    'comments',
    'readonly',
    (store) => store.getAll() as IDBRequest<KeptComment[]>,
  );
  return all.sort((a, b) => a.madeAt - b.madeAt);
}

/** Keeps a comment, in the place of what it was before. Rejects where the browser has no room. */
export async function keepComment(comment: KeptComment): Promise<void> {
  await inStore('comments', 'readwrite', (store) => store.put(comment, comment.id));
}

export async function forgetComment(id: CommentId): Promise<void> {
  await inStore('comments', 'readwrite', (store) => store.delete(id));
}
