/** One thing that an entry says. `before`: what it was, where something changed. */
export type Fact = {
  readonly label: string;
  readonly before: string | null;
  readonly after: string;
};
