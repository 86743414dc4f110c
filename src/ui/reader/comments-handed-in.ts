/** Told in the window when comments that were made without a connection were handed in. */
export const COMMENTS_HANDED_IN = 'comments-handed-in';
