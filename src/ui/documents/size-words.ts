/** A number of bytes for people: `4.7 MB`. */
export function sizeText(bytes: number): string {
  if (bytes < 1000) return `${String(bytes)} B`;
  const exponent = Math.min(3, Math.floor(Math.log10(bytes) / 3));
  const value = bytes / 1000 ** exponent;
  return `${value.toFixed(value < 10 ? 1 : 0)} ${['B', 'kB', 'MB', 'GB'][exponent] ?? ''}`;
}

/** A title to begin with, from a file's name. */
export function titleFrom(fileName: string): string {
  return fileName.replace(/\.pdf$/i, '').replaceAll(/[_]+/g, ' ').trim();
}

/** A reference to begin with: the front of the name in capitals, made unlike those in use. */
export function referenceFrom(fileName: string, taken: ReadonlySet<string>): string {
  const base = titleFrom(fileName).toUpperCase().replaceAll(/[^A-Z0-9]+/g, '-').replaceAll(/^-|-$/g, '').slice(0, 24) || 'DOC';
  for (let n = 1; ; n++) {
    const candidate = n === 1 ? base : `${base}-${String(n)}`;
    if (!taken.has(candidate)) return candidate;
  }
}
