/** A title to begin with, from a file's name. */
export function titleFrom(fileName: string): string {
  return fileName
    .replace(/\.[a-z][a-z0-9]{1,7}$/i, '')
    .replaceAll(/[_]+/g, ' ')
    .trim();
}

/** A reference to begin with: the front of the name in capitals, made unlike those in use. */
export function referenceFrom(fileName: string, taken: ReadonlySet<string>): string {
  const base =
    titleFrom(fileName)
      .toUpperCase()
      .replaceAll(/[^A-Z0-9]+/g, '-')
      .replaceAll(/^-|-$/g, '')
      .slice(0, 24) || 'DOC';
  for (let n = 1; ; n++) {
    const candidate = n === 1 ? base : `${base}-${String(n)}`;
    if (!taken.has(candidate)) return candidate;
  }
}
