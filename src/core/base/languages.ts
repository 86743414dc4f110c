/** Languages in which recipients are spoken to (BCP 47). */
export type Language = 'en';

/** For a recipient who has chosen none. */
export const DEFAULT_LANGUAGE: Language = 'en';
