/** A number of bytes for people: `4.7 MB`. */
export function sizeText(bytes: number): string {
  if (bytes < 1000) return `${String(bytes)} B`;
  const exponent = Math.min(3, Math.floor(Math.log10(bytes) / 3));
  const value = bytes / 1000 ** exponent;
  return `${value.toFixed(value < 10 ? 1 : 0)} ${['B', 'kB', 'MB', 'GB'][exponent] ?? ''}`;
}
