/** People one dispatch may reach. */
export const MOST_RECIPIENTS = 2_000;
/** Rows that a draft may have: a list that is too long for one dispatch is not lost for it. */
export const MOST_DRAFT_ROWS = 12_000;

/** The most documents that one dispatch carries. */
export const MOST_DOCUMENTS = 50;
