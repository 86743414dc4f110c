// The public test vectors of age v1: C2SP CCTV, as packaged in `cctv-age`.
import { createHash } from 'node:crypto';
import { inflateSync } from 'node:zlib';
import { armor, Decrypter } from 'age-encryption';
import * as vectors from 'cctv-age';
import { hexToBytes } from '@noble/hashes/utils.js';
import { expect, test } from 'vitest';
import { PAYLOAD_NONCE, payloadKey, type ChunkCipher } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { encodeHeader, parseHeader, verifyHeader } from '@/core/age/header';
import { readerOf } from '@/core/age/random-access';
import { openStream, sealStream } from '@/core/age/stream';
import { concatBytes, equalBytes } from '@/core/base/bytes';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

type Vector = {
  readonly name: string;
  readonly fields: ReadonlyMap<string, string>;
  readonly identities: readonly string[];
  readonly file: Uint8Array;
};

function parseVector(name: string, bytes: Uint8Array): Vector {
  const text = Buffer.from(bytes).toString('latin1');
  const end = text.indexOf('\n\n');
  const pairs = text
    .slice(0, end)
    .split('\n')
    .map((line): [string, string] => [
      line.slice(0, line.indexOf(': ')),
      line.slice(line.indexOf(': ') + 2),
    ]);
  const fields = new Map(pairs);
  const body = bytes.subarray(end + 2);
  return {
    name,
    fields,
    identities: pairs.filter(([key]) => key === 'identity').map(([, value]) => value),
    file: fields.get('compressed') === 'zlib' ? new Uint8Array(inflateSync(body)) : body,
  };
}

const all = Object.entries(vectors).map(([name, bytes]) => parseVector(name, bytes));

async function* inPieces(bytes: Uint8Array, size = 1000): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size)
    yield await Promise.resolve(bytes.subarray(at, at + size));
}

async function collect(source: AsyncIterable<Uint8Array>): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  for await (const part of source) parts.push(part);
  return concatBytes(...parts);
}

/** Whether the packaged library finds a stanza for the vector's identities; it unwraps before it looks at the MAC. */
async function unwraps({ identities, fields }: Vector, file: Uint8Array): Promise<boolean> {
  const decrypter = new Decrypter();
  for (const identity of identities) decrypter.addIdentity(identity);
  const passphrase = fields.get('passphrase');
  if (passphrase !== undefined) decrypter.addPassphrase(passphrase);
  return decrypter.decryptHeader(file).then(
    () => true,
    (error: unknown) => !String(error).includes('no identity matched'),
  );
}

/** `null` where the armor cannot be read. */
function bytesOf({ file, fields }: Vector): Uint8Array | null {
  if (fields.get('armored') !== 'yes') return file;
  try {
    return armor.decode(Buffer.from(file).toString('latin1'));
  } catch {
    return null;
  }
}

/** `null` where a piece cannot be had. */
function readByRange(cipher: ChunkCipher, sealed: Uint8Array): Uint8Array | null {
  try {
    const reader = readerOf(cipher, sealed.length, (at, length) =>
      sealed.subarray(at, at + length),
    );
    return reader.read(0, reader.size);
  } catch (error) {
    if (error instanceof AgeError) return null;
    throw error;
  }
}

/** What is behind a header, whole and by ranges, and sealed again; `null` where either refuses. */
async function readPayload(key: Uint8Array, payload: Uint8Array): Promise<Uint8Array | null> {
  if (payload.length < PAYLOAD_NONCE) return null;
  const sealed = payload.subarray(PAYLOAD_NONCE);
  const cipher = nodeChunkCipher(payloadKey(key, payload.subarray(0, PAYLOAD_NONCE)));
  const plain = await collect(openStream(cipher, inPieces(sealed))).catch((error: unknown) => {
    if (error instanceof AgeError && error.code === 'DAMAGED') return null;
    throw error;
  });
  const ranged = readByRange(cipher, sealed);
  expect(ranged === null).toBe(plain === null);
  if (plain === null || ranged === null) return null;
  expect(equalBytes(ranged, plain)).toBe(true);
  expect(equalBytes(await collect(sealStream(cipher, inPieces(plain))), sealed)).toBe(true);
  return plain;
}

/** The outcome of reading a vector with our code, in the words of the vectors. */
async function read(vector: Vector): Promise<string> {
  const file = bytesOf(vector);
  if (file === null) return 'armor failure';
  let header;
  try {
    header = parseHeader(file);
  } catch (error) {
    if (error instanceof AgeError) return 'header failure';
    throw error;
  }
  const expected = vector.fields.get('expect');
  const fileKey = vector.fields.get('file key');
  // Without a file key in the vector, what fails is a stanza, and unwrapping those is the packaged library's part.
  if (fileKey === undefined || expected === 'no match' || expected === 'header failure')
    return (await unwraps(vector, file.subarray(0, header.length))) ? 'header failure' : 'no match';
  const key = hexToBytes(fileKey);
  if (!verifyHeader(header, key)) return 'HMAC failure';
  expect(equalBytes(encodeHeader(header.stanzas, key), file.subarray(0, header.length))).toBe(true);

  const plain = await readPayload(key, file.subarray(header.length));
  if (plain === null) return 'payload failure';
  return createHash('sha256').update(plain).digest('hex') === vector.fields.get('payload')
    ? 'success'
    : 'wrong payload';
}

test('all public vectors are here', () => {
  expect(all.length).toBe(143);
});

test.each(all)('$name', async (vector) => {
  expect(await read(vector)).toBe(vector.fields.get('expect'));
});
