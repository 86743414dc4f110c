import { databaseAddress } from '@/server/db/database-file';
import { ServiceError } from '@/server/services/base/errors';
import { existsSync, readdirSync } from 'node:fs';
import { mkdir, rename, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { counted } from '@/core/base/counted';
import { openStream } from '@/core/age/stream';
import { linesOf, newestEndings, type Ending } from '@/core/ledger/endings';
import { WrapperError } from '@/core/wrapper/errors';
import { UsageError, needed, type Call, type Command } from '@/cli/command';
import { readIdentity } from '@/cli/identity-file';
import { actorNamed, withService } from '@/cli/open-service';
import { inspectOpen, unlock, withFile } from '@/cli/picked-file';
import { OutputError } from '@/cli/write-whole';
import type { Config } from '@/server/config/env';
import { lastSequence } from '@/server/repositories/ledger/access-changes';
import { endSinceBackup, type Restored } from '@/server/services/access/end-since-backup';
import { checkContents, unpackBackup } from '@/server/services/keys/restore-backup';
import type { BackupManifest } from '@/core/ledger/backup-manifest';
import { createWitness } from '@/server/storage/witness';
import { readEndings } from '@/server/storage/ended-list';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

export const restoreCommand: Command = {
  name: 'restore',
  usage: 'FILE --identity KEY --into FOLDER (--ended LIST | --revoke-all)',
  summary:
    'Brings a backup back into an empty folder, without what was revoked or destroyed since.',
  help: `--identity KEY          file that holds the recovery key
--passphrase-file FILE  where the key is kept under a passphrase; twice where two people keep it
--into FOLDER           becomes the new DATA_DIR; must not exist, or be empty
--ended LIST            the list of what ended (ENDED_FILE of the lost server)
--revoke-all            where no list is left: every grant is revoked, and can be reinstated by hand
--witness FILE          the witness of the ledger (WITNESS_FILE), where it is kept elsewhere: it is told
                        that the ledger goes on from the backup
--as ADDRESS            which member of staff this is, where there are several administrators

Everybody signs in, and every recipient proves their email address, anew. The restore is in the ledger.`,
  options: {
    identity: { type: 'string' },
    'passphrase-file': { type: 'string', multiple: true },
    into: { type: 'string' },
    ended: { type: 'string' },
    'revoke-all': { type: 'boolean' },
    witness: { type: 'string' },
    as: { type: 'string' },
  },
  run: async (call) => {
    const [file, ...more] = call.files;
    if (file === undefined || more.length > 0) throw new UsageError('Name one backup.');
    const into = path.resolve(needed(call, 'into', 'the folder that becomes the new DATA_DIR'));
    if (existsSync(into) && readdirSync(into).length > 0)
      throw new UsageError(`${into} is not empty. A restore never writes over anything.`);
    const endings = endingsOf(call);
    const identity = await readIdentity(
      call,
      needed(call, 'identity', 'the file that holds the recovery key'),
    );
    const staging = `${into}.restoring`;
    await rm(staging, { recursive: true, force: true });
    await mkdir(staging, { recursive: true, mode: 0o700 });
    try {
      const manifest = await unpack(call, file, identity, staging);
      const restored = await bringUpToDate(call, staging, manifest, endings);
      await rm(into, { recursive: true, force: true });
      await rename(staging, into);
      return {
        code: 0,
        text: report(into, manifest, restored),
        json: { into, ...manifest, ...restored },
      };
    } catch (error) {
      await rm(staging, { recursive: true, force: true });
      throw error instanceof Error && 'code' in error && error.code === 'ENOSPC'
        ? new OutputError(into, error)
        : error;
    }
  },
};

/** The list of what ended; `null` where everything is to be revoked. @throws UsageError where neither is said */
function endingsOf(call: Call): Ending[] | null {
  const list = call.text('ended');
  if (list !== undefined && !existsSync(list)) throw new UsageError(`There is no list ${list}.`);
  if (list !== undefined) return readEndings(list);
  if (call.flag('revoke-all')) return null;
  throw new UsageError(
    'Say with --ended where the list of what ended is, so that nothing revoked since comes ' +
      'back; or, where none is left, --revoke-all.',
  );
}

async function unpack(
  call: Call,
  file: string,
  identity: string,
  staging: string,
): Promise<BackupManifest> {
  return withFile(file, async (source, size) => {
    const inspected = await inspectOpen(source, size).catch((error: unknown) => {
      throw error instanceof WrapperError ? new ServiceError('not-a-backup') : error;
    });
    if (inspected.offset > 0 || inspected.stanza !== null)
      throw new ServiceError('document-not-backup');
    const { sealed, key } = await unlock(source, inspected, identity);
    const stream = source.createReadStream({
      start: sealed.offset,
      autoClose: false,
      highWaterMark: 1 << 20,
    });
    const archive = openStream(nodeChunkCipher(key), stream);
    return unpackBackup(archive, staging, (done, all) => {
      call.progress(done, all, 'unpacked');
    });
  });
}

function configOf(call: Call, folder: string): Config {
  return {
    ...call.config(),
    dataDir: folder,
    databaseUrl: databaseAddress(path.join(folder, 'embargo.db')),
    masterKeyFile: path.join(folder, 'keys', 'master.key'),
    endedFile: path.join(folder, 'ended.jsonl'),
    witnessFile: path.join(folder, 'witness.jsonl'),
  };
}

async function bringUpToDate(
  call: Call,
  folder: string,
  manifest: BackupManifest,
  endings: Ending[] | null,
): Promise<Restored> {
  return withService(configOf(call, folder), async (container) => {
    const { deps } = container;
    await checkContents(deps);
    const restored = await endSinceBackup(
      deps,
      await actorNamed(container, call.text('as')),
      manifest,
      endings === null ? null : newestEndings(endings),
    );
    await deps.db.checkpoint();
    // The list goes on from here; its old numbers belong to entries that are gone.
    const sequence = await lastSequence(deps.db.read);
    await writeFile(
      path.join(folder, 'ended.jsonl'),
      linesOf(newestEndings(endings ?? []), sequence),
      { mode: 0o600 },
    );
    const witness = call.text('witness');
    if (witness !== undefined) createWitness(witness).goBack(manifest.entries);
    return restored;
  });
}

function report(
  into: string,
  { organisation, madeAt, blobs }: BackupManifest,
  { revoked, narrowed, documents, destroyed, blocked, disabled, ceilings, settings }: Restored,
): string {
  const ended = [
    counted(revoked, 'grant'),
    counted(documents, 'document'),
    counted(destroyed, 'key'),
    counted(blocked, 'person', 'people'),
    `${String(disabled)} staff`,
  ];
  const tightened = [
    `${counted(narrowed, 'grant')} narrowed`,
    `${counted(ceilings, 'ceiling')} lowered`,
    `${counted(settings, 'rule or limit', 'rules and limits')} of senders tightened`,
  ];
  return [
    `${organisation}, as of ${new Date(madeAt).toISOString()}: ${counted(blobs, 'stored file')} in ${into}`,
    `Ended since, and ended here too: ${ended.join(', ')}; ${tightened.join(', ')}.`,
    `Start it with DATA_DIR=${into}`,
    '',
  ].join('\n');
}
