/** What was made of a rule, in words, and how it is undone. */
export type RuleDone = { readonly text: string; readonly undo: () => Promise<unknown> };
