import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Secret } from '@/core/base/secret';
import { ConfigError } from '@/server/config/env';

const KEY_BYTES = 32;

/**
 * Reads the master key, making it on the very first start.
 *
 * @throws ConfigError where the file is readable by others, or holds no key
 */
export function loadMasterKey(file: string): Secret<Uint8Array> {
  if (!existsSync(file)) {
    mkdirSync(path.dirname(file), { recursive: true, mode: 0o700 });
    writeFileSync(file, `${randomBytes(KEY_BYTES).toString('base64')}\n`, { mode: 0o600, flag: 'wx' });
    chmodSync(file, 0o600);
  }
  if ((statSync(file).mode & 0o077) !== 0) throw new ConfigError('The master key file can be read by others on this machine. Set its mode to 0600.');
  const key = Buffer.from(readFileSync(file, 'utf8').trim(), 'base64');
  if (key.length !== KEY_BYTES) throw new ConfigError('The master key file does not hold a key of 32 bytes in base64.');
  return new Secret(new Uint8Array(key));
}
