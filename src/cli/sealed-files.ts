import { existsSync } from 'node:fs';
import path from 'node:path';
import type { Config } from '@/server/config/env';
import { sealedFilesHere, type SealedFiles } from '@/server/storage/sealed-files';
import { SEALING_WORKER, createSealingThreads } from '@/server/storage/sealing-threads';

/** For a command that seals or opens a file. What its threads run is there only where the product was built. */
export async function withSealedFiles<T>(
  { workersDir }: Pick<Config, 'workersDir'>,
  use: (files: SealedFiles) => Promise<T>,
): Promise<T> {
  const isBuilt = existsSync(path.join(workersDir, SEALING_WORKER));
  const files = isBuilt ? createSealingThreads(workersDir) : sealedFilesHere;
  try {
    return await use(files);
  } finally {
    await files.close();
  }
}
