import type { CommentView } from '@/contracts/comments';
import type { CommentId } from '@/core/base/ids';
import type { CommentPlace } from '@/core/comments/comment';

/** A remark that is being written, and where it is to stand. */
export type CommentDraft = {
  readonly page: number;
  readonly place: CommentPlace;
  readonly text: string;
};

/** The comments on what is open, and the one that is being written. */
export type Comments = {
  readonly all: readonly CommentView[];
  /** Threads, each with its answers, in the order of the pages. */
  readonly threads: readonly {
    readonly first: CommentView;
    readonly answers: readonly CommentView[];
  }[];
  readonly may: boolean;
  readonly isPlacing: boolean;
  readonly setPlacing: (isPlacing: boolean) => void;
  readonly draft: CommentDraft | null;
  readonly setDraft: (draft: CommentDraft | null) => void;
  readonly active: CommentId | null;
  readonly setActive: (id: CommentId | null) => void;
  readonly problem: string | null;
  readonly busy: boolean;
  readonly save: () => Promise<void>;
  /** Null: nothing is answered or resolved here. */
  readonly answer: ((to: CommentView, text: string) => Promise<boolean>) | null;
  readonly change: (
    id: CommentId,
    change: { readonly text: string } | { readonly resolved: boolean } | { readonly removed: true },
  ) => Promise<boolean>;
};

/** Comments with their answers, in the order they came. */
export function threadsOf(all: readonly CommentView[]): Comments['threads'] {
  return all
    .filter(({ answers }) => answers === null)
    .map((first) => ({ first, answers: all.filter(({ answers }) => answers === first.id) }));
}
