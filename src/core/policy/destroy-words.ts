/** What has to be typed to mean it. */
export function destroyWords(documents: number): string {
  return `destroy ${String(documents)}`;
}
