/** Where random bytes come from; the caller chooses, so that core stays a function of its arguments. */
export type RandomSource = (length: number) => Uint8Array;
