/** A person as a file states them; what is empty there is `''` or `null` here and changes nothing. */
export type StatedPerson = {
  readonly line: number;
  readonly address: string;
  readonly name: string;
  readonly organisation: string;
  readonly zone: string | null;
  readonly language: string | null;
  /** What the organisation itself calls them by: a number, a code. */
  readonly ownId: string | null;
  /** The groups they are to be in, by name. */
  readonly groups: readonly string[];
};
/** A line, counting from 1, that could not be taken as it stands, and why. */
export type LineProblem = { readonly line: number; readonly what: string };
export type ReadPeople = {
  readonly people: readonly StatedPerson[];
  readonly problems: readonly LineProblem[];
};

/** What one entry of a file says, by our names, before any of it is checked. */
export type RawPerson = {
  readonly line: number;
  readonly address: string;
  readonly name?: string | undefined;
  readonly organisation?: string | undefined;
  readonly zone?: string | undefined;
  readonly language?: string | undefined;
  readonly ownId?: string | undefined;
  readonly groups?: readonly string[] | undefined;
};
