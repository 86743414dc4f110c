import 'server-only';
import { mkdir, open } from 'node:fs/promises';
import path from 'node:path';
import { extract } from 'tar-stream';
import { fileSize } from '@/core/age/chunks';
import { backupManifest, type BackupManifest } from '@/core/ledger/backup-manifest';
import { storedVersions } from '@/server/repositories/base/backup-repository';
import { ServiceError } from '@/server/services/base/errors';
import { allSealed } from '@/server/services/documents/sealed-source';
import type { Deps } from '@/server/services/base/deps';

/** The only names a backup holds: nothing can be written anywhere else. */
const NAMES = /^(manifest\.json|embargo\.db|keys\/master\.key|blobs\/ver_[0-9a-z]{20}\.age)$/;
const LARGEST_MANIFEST = 1 << 16;

async function unpackFile(
  folder: string,
  name: string,
  content: AsyncIterable<unknown>,
): Promise<void> {
  const target = path.join(folder, name);
  await mkdir(path.dirname(target), { recursive: true, mode: 0o700 });
  const file = await open(target, 'wx', 0o600);
  try {
    for await (const bytes of content) await file.writeFile(bytes as Uint8Array);
    await file.sync();
  } finally {
    await file.close();
  }
}

/**
 * Unpacks a backup's archive into an empty folder.
 *
 * @param archive the tar archive, decrypted; it throws where it does not verify to its end
 * @throws ServiceError `INVALID` where it holds anything else than a backup does
 */
export async function unpackBackup(
  archive: AsyncIterable<Uint8Array>,
  folder: string,
  progress: (done: number, all: number) => void = () => undefined,
): Promise<BackupManifest> {
  const unpacked = extract();
  const feeding = feed(archive, unpacked);
  let manifest: BackupManifest | null = null;
  let done = 0;
  try {
    for await (const entry of unpacked) {
      const { name, type } = entry.header;
      if (type !== 'file' || !NAMES.test(name))
        throw new ServiceError('archive-foreign', { name: name.slice(0, 60) });
      if (name === 'manifest.json')
        manifest = await readManifest(entry as unknown as AsyncIterable<Uint8Array>);
      else await unpackFile(folder, name, entry);
      progress(++done, (manifest?.blobs ?? 0) + 3);
    }
  } catch (error) {
    unpacked.destroy();
    // Damage in the encrypted file is what really happened, where both are told.
    const first = await feeding;
    throw first ?? error;
  }
  const failed = await feeding;
  if (failed !== null) throw failed;
  return whole(manifest, done);
}

/** @throws ServiceError `INVALID` where the archive has not all that its manifest speaks of */
function whole(manifest: BackupManifest | null, done: number): BackupManifest {
  if (manifest === null || done !== manifest.blobs + 3)
    throw new ServiceError('backup-incomplete', { content: null });
  return manifest;
}

/** @returns what went wrong while the archive was read, if anything did */
async function feed(
  archive: AsyncIterable<Uint8Array>,
  into: ReturnType<typeof extract>,
): Promise<Error | null> {
  try {
    for await (const bytes of archive) {
      if (into.destroyed) return null;
      if (!into.write(bytes))
        await new Promise<void>((resolve) => {
          into.once('drain', resolve);
          into.once('close', resolve);
        });
    }
    into.end(undefined);
    return null;
  } catch (error) {
    const failed = error instanceof Error ? error : new Error('the archive could not be read');
    into.destroy(failed);
    return failed;
  }
}

async function readManifest(entry: AsyncIterable<Uint8Array>): Promise<BackupManifest> {
  let text = '';
  for await (const bytes of entry) {
    text += Buffer.from(bytes).toString('utf8');
    if (text.length > LARGEST_MANIFEST) break;
  }
  try {
    return backupManifest.parse(JSON.parse(text));
  } catch {
    throw new ServiceError('backup-unreadable');
  }
}

/** Every content the database speaks of is there and as long as it should be. @throws ServiceError `INVALID` */
export async function checkContents(deps: Pick<Deps, 'db' | 'blobs'>): Promise<number> {
  const rows = await storedVersions(deps.db.read);
  for (const { blobKey, headerBytes, plainBytes } of rows.flatMap(allSealed))
    if ((await deps.blobs.sizeOf(blobKey)) !== fileSize(headerBytes, plainBytes))
      throw new ServiceError('backup-incomplete', { content: blobKey });
  return rows.length;
}
