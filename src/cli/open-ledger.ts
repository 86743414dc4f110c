import { existsSync } from 'node:fs';
import { ConfigError, type Config } from '@/server/config/env';
import { openDatabase, type Database } from '@/server/db/database';
import { findServiceKey } from '@/server/repositories/organisation-repository';

/** The database and the public key that signed its ledger; needs no master key. @throws ConfigError where there is none */
export async function openLedger(config: Config): Promise<{ readonly db: Database; readonly publicKey: Uint8Array }> {
  const file = config.databaseUrl.replace(/^file:/, '');
  if (!existsSync(file)) throw new ConfigError(`There is no database at ${file}. Set DATA_DIR to the folder the server uses.`);
  const db = await openDatabase(config.databaseUrl);
  const key = await findServiceKey(db.read, 'issuer');
  if (key === null) throw new ConfigError('This database has no ledger yet.');
  return { db, publicKey: new Uint8Array(key.publicKey) };
}
