/** Characters of a document that is brought in: far more than any list of terms has. */
export const LARGEST_ODRL = 1_000_000;
