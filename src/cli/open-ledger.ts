import { databaseFile } from '@/server/db/database-file';
import { existsSync } from 'node:fs';
import { Secret } from '@/core/base/secret';
import { ConfigError, type Config } from '@/server/config/env';
import { openDatabase, type Database } from '@/server/db/database';
import { createSeals } from '@/server/db/seals';
import { findServiceKey } from '@/server/repositories/staff/organisation-repository';
import type { Outside } from '@/server/services/ledger/verify-ledger';
import { createHashes, createKeyWrap } from '@/server/vault/vault';
import { openMasterKeys } from '@/server/vault/master-key';
import { readWitness } from '@/server/storage/witness';

export type OpenLedger = {
  readonly db: Database;
  readonly outside: Outside;
  /** The witness file that was read; null: there is none, and the key is the database's own. */ readonly witness:
    string | null;
};

/** The seals of rows, where the master key is at hand. */
async function sealsOf(config: Config, db: Database): Promise<Outside['seals']> {
  const hashes = existsSync(config.masterKeyFile) ? await findServiceKey(db.read, 'hashes') : null;
  if (hashes === null) return undefined;
  const secret = createKeyWrap(openMasterKeys(config.masterKeyFile, false)).unwrap(
    hashes,
    'hashes',
  );
  return createSeals(Buffer.from(createHashes(new Secret(secret)).derive('row seals'), 'hex'));
}

/**
 * The database, and what its ledger is verified against: key and checkpoints from a witness file,
 * seals where the master key is.
 *
 * @param file the witness file; the one of the settings where it is left out
 * @throws ConfigError where there is no database, no ledger in it, or no such file
 */
export async function openLedger(
  config: Config,
  file: string = config.witnessFile,
): Promise<OpenLedger> {
  const path = databaseFile(config.databaseUrl);
  if (!existsSync(path))
    throw new ConfigError(
      `There is no database at ${path}. Set DATA_DIR to the folder the server uses.`,
    );
  const given = file !== config.witnessFile;
  if (given && !existsSync(file)) throw new ConfigError(`There is no witness file ${file}.`);
  const db = await openDatabase(config.databaseUrl);
  const own = await findServiceKey(db.read, 'issuer');
  if (own === null) throw new ConfigError('This database has no ledger yet.');
  const witnessed = existsSync(file) ? readWitness(file) : null;
  const publicKey = witnessed?.publicKey ?? null;
  return {
    db,
    witness: publicKey === null ? null : file,
    outside: {
      publicKey: publicKey ?? new Uint8Array(own.publicKey),
      witnesses: witnessed?.checkpoints,
      seals: await sealsOf(config, db),
    },
  };
}
