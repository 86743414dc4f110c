import { Decrypter, Encrypter, Stanza as PackagedStanza, type Recipient } from 'age-encryption';
import { AgeError } from '@/core/age/errors';
import { parseHeader, type Header, type Stanza } from '@/core/age/header';
import { utf8, concatBytes } from '@/core/base/bytes';
import { base64nopad } from '@scure/base';

/**
 * A fresh file key (16 bytes), wrapped for each public key (`age1…`, `age1pq1…`).
 *
 * Curves and key wrapping are the packaged library's. It hands a file key to its recipients only,
 * so one of ours stands among them and takes it; key and wraps therefore belong together.
 *
 * @throws AgeError `BAD_HEADER` where a public key is not one
 */
export async function newFileKey(
  publicKeys: readonly string[],
): Promise<{ readonly fileKey: Uint8Array; readonly stanzas: readonly Stanza[] }> {
  let fileKey = new Uint8Array(0);
  const taker: Recipient = {
    wrapFileKey: (key) => {
      fileKey = Uint8Array.from(key);
      return [new PackagedStanza(['taken'], new Uint8Array(0))];
    },
  };
  const encrypter = new Encrypter();
  encrypter.addRecipient(taker);
  for (const publicKey of publicKeys) addPublicKey(encrypter, publicKey);
  const file = await encrypter.encrypt(new Uint8Array(0));
  return {
    fileKey,
    stanzas: parseHeader(file).stanzas.filter((stanza) => stanza.args[0] !== 'taken'),
  };
}

function addPublicKey(encrypter: Encrypter, publicKey: string): void {
  try {
    encrypter.addRecipient(publicKey);
  } catch (cause) {
    throw new AgeError(
      'BAD_HEADER',
      `not a public key: ${cause instanceof Error ? cause.name : 'unknown'}`,
    );
  }
}

/**
 * The file key, unwrapped with a private key (`AGE-SECRET-KEY-…`); the header's MAC is verified on the way.
 *
 * @throws AgeError `DAMAGED` where no stanza opens or the MAC is wrong
 */
export async function unwrapFileKey(header: Header, privateKey: string): Promise<Uint8Array> {
  const decrypter = new Decrypter();
  try {
    decrypter.addIdentity(privateKey);
    return await decrypter.decryptHeader(
      concatBytes(header.signed, utf8(` ${base64nopad.encode(header.mac)}\n`)),
    );
  } catch (cause) {
    throw new AgeError('DAMAGED', cause instanceof Error ? cause.message : 'unknown');
  }
}
