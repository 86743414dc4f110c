/** What became of a changed file that was sent back. */
export type RevisionState = 'waiting' | 'accepted' | 'declined';

/** Most bytes of a file that is sent back: it comes in one piece. */
export const MAX_REVISION = 96 * 1024 * 1024;
/** Files that one person may have waiting for an answer on one document. */
export const MOST_WAITING = 5;
