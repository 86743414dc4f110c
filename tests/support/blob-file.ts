import { existsSync } from 'node:fs';
import path from 'node:path';

/** The file in which a product in this folder keeps a blob, finished or not. */
export function blobFile({ folder }: { readonly folder: string }, key = ''): string {
  const finished = path.join(folder, 'blobs', `${key}.age`);
  return existsSync(finished) ? finished : path.join(folder, 'incoming', `${key}.age`);
}
