/** Under which key the pages lie that were made of a stored file. */
export function pagesKey(blobKey: string): string {
  return `${blobKey}.pages`;
}
