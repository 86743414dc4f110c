/** A stretch of text that looks alike. */
export type Words = {
  readonly text: string;
  readonly bold?: true;
  readonly italic?: true;
  readonly underlined?: true;
  readonly struck?: true;
  readonly mono?: true;
  readonly set?: 'raised' | 'lowered';
};

/** A cell, and how many columns and rows it takes. */
export type Cell = {
  readonly blocks: readonly Block[];
  readonly columns: number;
  readonly rows: number;
};

/** What follows one another down the pages of a text. */
export type Block =
  | { readonly kind: 'paragraph'; readonly words: readonly Words[] }
  /** `level` counts from 1, the highest. */
  | { readonly kind: 'heading'; readonly level: number; readonly words: readonly Words[] }
  | { readonly kind: 'list'; readonly first: number | null; readonly items: readonly Block[][] }
  | { readonly kind: 'table'; readonly headings: number; readonly rows: readonly Cell[][] }
  /** PNG or JPEG, and its size in px. */
  | {
      readonly kind: 'picture';
      readonly bytes: Uint8Array;
      readonly width: number;
      readonly height: number;
    }
  /** Lines as they stand, blanks and all. */
  | { readonly kind: 'lines'; readonly text: string }
  | { readonly kind: 'quote'; readonly blocks: readonly Block[] }
  | { readonly kind: 'rule' };
