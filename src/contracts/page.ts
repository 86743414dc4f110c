/** A stretch of a long list: rows, how many pass the filter in all, and from where to go on. */
export type Page<R> = {
  readonly rows: readonly R[];
  readonly total: number;
  readonly next: string | null;
};
