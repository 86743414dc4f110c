/** Levels that rule what is below them, from the outermost in. */
export const LEVELS = ['organisation', 'marking', 'folder', 'document'] as const;
export type Level = (typeof LEVELS)[number];

/** What a rule belongs to: the marking, folder or document; empty for the organisation. */
export type Subject = { readonly level: Level; readonly subject: string };

/** Where a document stands, as far as levels ask. */
export type Standing = {
  readonly document: string;
  readonly marking: string | null;
  readonly folder: string | null;
};

/** Which folder lies in which. */
export type Parents = ReadonlyMap<string, string | null>;

/**
 * The rules that reach a document, from the outermost in: the organisation's, its marking's, those
 * of every folder around it, and its own.
 */
export function reaching<T extends Subject>(
  { document, marking, folder }: Standing,
  rules: readonly T[],
  parents: Parents,
): T[] {
  if (rules.length === 0) return [];
  const around: string[] = [];
  // A loop of folders cannot come about; a damaged database must not hang a decision.
  for (let at = folder; at !== null && !around.includes(at); at = parents.get(at) ?? null)
    around.push(at);
  const found = rules.filter(
    ({ level, subject }) =>
      level === 'organisation' ||
      (level === 'marking'
        ? subject === marking
        : level === 'folder'
          ? around.includes(subject)
          : subject === document),
  );
  return found.length < 2
    ? found
    : found.sort(
        (a, b) =>
          LEVELS.indexOf(a.level) - LEVELS.indexOf(b.level) ||
          around.indexOf(b.subject) - around.indexOf(a.subject),
      );
}
