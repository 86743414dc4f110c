import 'server-only';
import { databaseAddress } from '@/server/db/database-file';
import { closeSync, openSync, readFileSync } from 'node:fs';
import { open, rm, type FileHandle } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { pack, type Pack } from 'tar-stream';
import { PAYLOAD_NONCE, fileSize, payloadKey } from '@/core/age/chunks';
import { encodeHeader } from '@/core/age/header';
import { newFileKey } from '@/core/age/recipients';
import { sealStream } from '@/core/age/stream';
import type { BackupManifest } from '@/core/ledger/backup-manifest';
import { openForReading } from '@/server/db/database';
import {
  allStoredVersions,
  type StoredVersion,
} from '@/server/repositories/documents/check-repository';
import { ledgerState } from '@/server/repositories/ledger/ledger-chain';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps } from '@/server/services/base/deps';
import { contentProblem } from '@/server/services/documents/check-contents';
import { ServiceError } from '@/server/services/base/errors';
import { allSealed } from '@/server/services/documents/sealed-source';
import { copyName } from '@/server/storage/leftovers';
import { mergeKeyFiles } from '@/server/vault/master-key';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

export type BackupProgress = (done: number, all: number) => void;
export type Backup = {
  readonly manifest: BackupManifest;
  readonly pieces: AsyncGenerator<Uint8Array, void>;
};
type BackupDeps = Pick<Deps, 'db' | 'blobs' | 'clock' | 'random' | 'publicUrl' | 'vault'>;

/** Puts a file into the archive and waits until it is through. */
async function putFile(
  archive: Pack,
  name: string,
  size: number,
  content: Readable,
): Promise<void> {
  await pipeline(content, archive.entry({ name, size, mode: 0o600 }));
}

/**
 * Read through before it is taken along: a backup of what is damaged brings nothing back. @throws
 * ServiceError `CONFLICT`
 */
async function needWhole(deps: BackupDeps, row: StoredVersion): Promise<void> {
  if ((await contentProblem(deps, row)) === null) return;
  throw new ServiceError('backup-content-damaged', { reference: row.reference, title: row.title });
}

async function fill(
  archive: Pack,
  deps: BackupDeps,
  {
    manifest,
    snapshot,
    keys,
    blobs,
  }: {
    readonly manifest: BackupManifest;
    readonly snapshot: FileHandle;
    readonly keys: string;
    readonly blobs: readonly { readonly key: string; readonly size: number }[];
  },
  progress: BackupProgress,
): Promise<void> {
  const head = Buffer.from(`${JSON.stringify(manifest)}\n`);
  await putFile(archive, 'manifest.json', head.length, Readable.from([head]));
  const held = Buffer.from(keys);
  await putFile(archive, 'keys/master.key', held.length, Readable.from([held]));
  await putFile(
    archive,
    'embargo.db',
    (await snapshot.stat()).size,
    snapshot.createReadStream({ autoClose: false }),
  );
  for (const [index, { key, size }] of blobs.entries()) {
    await putFile(archive, `blobs/${key}.age`, size, Readable.from(deps.blobs.read(key)));
    progress(index + 1, blobs.length);
  }
  archive.finalize();
}

async function* sealed(
  archive: Pack,
  recoveryKey: string,
  random: Deps['random'],
): AsyncGenerator<Uint8Array, void> {
  const { fileKey, stanzas } = await newFileKey([recoveryKey]);
  const nonce = random(PAYLOAD_NONCE);
  yield encodeHeader(stanzas, fileKey);
  yield nonce;
  yield* sealStream(
    nodeChunkCipher(payloadKey(fileKey, nonce)),
    archive as unknown as AsyncIterable<Uint8Array>,
  );
}

/**
 * Database, contents and keys as one set, as they stand at one moment, while a server goes on: a
 * tar archive in an age file that the recovery key alone opens. Needs room for a copy of the
 * database beside it; that copy loses its name as soon as it is there.
 *
 * @param folder where the copy is written meanwhile
 * @throws ServiceError `CONFLICT` where there is no recovery key, or a stored content is not whole
 */
export async function makeBackup(
  deps: BackupDeps,
  masterKeyFile: string,
  folder: string,
  progress: BackupProgress = () => undefined,
): Promise<Backup> {
  const organisation = await findOrganisation(deps.db.read);
  const recoveryKey = organisation?.recoveryKey ?? null;
  if (organisation === null || recoveryKey === null)
    throw new ServiceError('no-recovery-key-for-backup');
  const snapshot = path.join(folder, copyName(Buffer.from(deps.random(6)).toString('hex')));
  const keysBefore = readFileSync(masterKeyFile, 'utf8');
  try {
    // Made empty first, so that it is nobody else's to read from its first byte on.
    closeSync(openSync(snapshot, 'wx', 0o600));
    await deps.db.copyTo(snapshot);
    // A rotation may have begun or ended meanwhile: both files together hold every generation the copy needs.
    const keys = mergeKeyFiles(keysBefore, readFileSync(masterKeyFile, 'utf8'));
    const copy = openForReading(databaseAddress(snapshot));
    const rows = await allStoredVersions(copy.read);
    const { size: entries } = await ledgerState(copy.read);
    copy.close();
    const blobs = rows.flatMap(allSealed).map(({ blobKey, headerBytes, plainBytes }) => ({
      key: blobKey,
      size: fileSize(headerBytes, plainBytes),
    }));
    for (const row of rows) await needWhole(deps, row);
    const manifest: BackupManifest = {
      format: 1,
      madeAt: deps.clock.now(),
      publicUrl: deps.publicUrl,
      organisation: organisation.name,
      entries,
      blobs: blobs.length,
    };
    const file = await open(snapshot, 'r');
    return {
      manifest,
      pieces: archived(deps, { manifest, snapshot: file, keys, blobs }, recoveryKey, progress),
    };
  } finally {
    // From here on only this process can read it, and nothing of it stays however that ends.
    await rm(snapshot, { force: true });
  }
}

async function* archived(
  deps: BackupDeps,
  set: Parameters<typeof fill>[2],
  recoveryKey: string,
  progress: BackupProgress,
): AsyncGenerator<Uint8Array, void> {
  const archive = pack();
  try {
    const filling = fill(archive, deps, set, progress).catch((error: unknown) => {
      archive.destroy(error instanceof Error ? error : new Error('the archive failed'));
    });
    yield* sealed(archive, recoveryKey, deps.random);
    await filling;
  } finally {
    await set.snapshot.close();
  }
}
