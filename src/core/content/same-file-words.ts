/** The document that a file is already. */
type Same = {
  readonly title: string;
  readonly reference: string;
  /** The version that it is, where the document has a newer one; `null`: it is the current one. */
  readonly older: number | null;
};

/** Says of a file that it is a document already. */
export function sameFileWords({ title, reference, older }: Same): string {
  return older === null
    ? `This file is protected already: ${title}, ${reference}.`
    : `This file is protected already: version ${String(older)} of ${title}, ${reference}, which has a newer one.`;
}
