/** The same messages, in any words. */
export type InAnyWords<T> = {
  readonly [K in keyof T]: T[K] extends string ? string : InAnyWords<T[K]>;
};
