/** Where something stands on a page, in hundredths of a percent of it, from its top left. */
export type CommentBox = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
};

/** What a comment is about: a point of a page, an area of it, or some of its text. */
export type CommentPlace =
  | { readonly kind: 'point'; readonly left: number; readonly top: number }
  | { readonly kind: 'area'; readonly box: CommentBox }
  | { readonly kind: 'text'; readonly boxes: readonly CommentBox[] };

/** Who of those with access sees the comments of a document besides who made them and the staff. */
export const COMMENTS_SEEN_BY = ['makers', 'everybody'] as const;
export type CommentsSeenBy = (typeof COMMENTS_SEEN_BY)[number];

/** The longest comment, in characters. */
export const MAX_COMMENT = 4_000;
/** Boxes that marked text has at the most: a line each. */
export const MAX_COMMENT_BOXES = 100;
/** All of a page, in hundredths of a percent. */
export const WHOLE_PAGE = 10_000;

/** Who made a comment. */
export type CommentMaker = { readonly kind: 'recipient' | 'staff'; readonly id: string };

/** What decides who sees a comment. */
export type CommentFacts = {
  readonly id: string;
  /** The comment that this one answers; null: it stands by itself. */
  readonly answers: string | null;
  readonly maker: CommentMaker;
};

/**
 * What one recipient sees of a document's comments: their own threads whole, and those of others
 * only where the owner chose so.
 */
export function seenByRecipient<T extends CommentFacts>(
  comments: readonly T[],
  recipient: string,
  seenBy: CommentsSeenBy,
): T[] {
  if (seenBy === 'everybody') return [...comments];
  const own = new Set(
    comments
      .filter(({ answers, maker }) => answers === null && isBy(maker, 'recipient', recipient))
      .map(({ id }) => id),
  );
  return comments.filter(
    ({ id, answers, maker }) => own.has(answers ?? id) || isBy(maker, 'recipient', recipient),
  );
}

export function isBy(maker: CommentMaker, kind: CommentMaker['kind'], id: string): boolean {
  return maker.kind === kind && maker.id === id;
}

/** The boxes that a place takes up; a point has none. */
export function boxesOf(place: CommentPlace): readonly CommentBox[] {
  switch (place.kind) {
    case 'point':
      return [];
    case 'area':
      return [place.box];
    case 'text':
      return place.boxes;
  }
}
