/** Most bytes a document may have. */
export const MAX_DOCUMENT = 1024 ** 3;
