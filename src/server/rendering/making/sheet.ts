/** A cell as it is shown. */
export type SheetCell = {
  readonly text: string;
  readonly isNumber?: true;
  readonly bold?: true;
};

/** A sheet of rows and columns. */
export type Sheet = {
  readonly name: string;
  readonly rows: readonly (readonly SheetCell[])[];
  /** What each row is called at its side. */
  readonly numbers: readonly number[];
  /** Rows at the top that every page shows again. */
  readonly headings: number;
  /** Widths in points, where the file says them; a column without one is as wide as what it holds. */
  readonly widths: readonly (number | undefined)[];
};
