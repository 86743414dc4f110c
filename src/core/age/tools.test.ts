// Both directions against other implementations: the packaged library, and Debian's `age`.
import { execFileSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import {
  Decrypter,
  Encrypter,
  generateHybridIdentity,
  generateX25519Identity,
  identityToRecipient,
} from 'age-encryption';
import { afterAll, describe, expect, test } from 'vitest';
import { CHUNK, PAYLOAD_NONCE, payloadKey, sealedSize } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { encodeHeader, parseHeader } from '@/core/age/header';
import { embargoStanza, findEmbargoStanza } from '@/core/age/embargo-stanza';
import { newFileKey, unwrapFileKey } from '@/core/age/recipients';
import { readerOf } from '@/core/age/random-access';
import { sealStream } from '@/core/age/stream';
import { concatBytes, equalBytes } from '@/core/base/bytes';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

const folder = mkdtempSync(path.join(tmpdir(), 'age-tools-'));
afterAll(() => {
  rmSync(folder, { recursive: true });
});

const STANZA = embargoStanza('ver_00000000000000000001', 'https://embargo.tern-quill.example');

async function* one(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(bytes);
}

async function write(plain: Uint8Array, recipient: string): Promise<Uint8Array> {
  const { fileKey, stanzas } = await newFileKey([recipient]);
  const nonce = randomBytes(PAYLOAD_NONCE);
  const parts = [encodeHeader([STANZA, ...stanzas], fileKey), nonce];
  for await (const sealed of sealStream(nodeChunkCipher(payloadKey(fileKey, nonce)), one(plain)))
    parts.push(sealed);
  return concatBytes(...parts);
}

async function read(file: Uint8Array, identity: string): Promise<Uint8Array> {
  const header = parseHeader(file);
  const start = header.length + PAYLOAD_NONCE;
  const key = payloadKey(
    await unwrapFileKey(header, identity),
    file.subarray(header.length, start),
  );
  const reader = readerOf(nodeChunkCipher(key), file.length - start, (at, length) =>
    file.subarray(start + at, start + at + length),
  );
  return reader.read(0, reader.size);
}

describe.each([
  0,
  1,
  CHUNK - 1,
  CHUNK,
  CHUNK + 1,
  2 * CHUNK - 1,
  2 * CHUNK,
  2 * CHUNK + 1,
  3 * CHUNK,
])('a file of %i bytes', (size) => {
  const plain = new Uint8Array(randomBytes(size));

  test.each([
    ['X25519', generateX25519Identity],
    ['hybrid', generateHybridIdentity],
  ])('the packaged library reads ours and we read its, %s', async (_kind, generate) => {
    const identity = await generate();
    const recipient = await identityToRecipient(identity);
    const ours = await write(plain, recipient);
    const decrypter = new Decrypter();
    decrypter.addIdentity(identity);
    expect(equalBytes(await decrypter.decrypt(ours), plain)).toBe(true);
    const encrypter = new Encrypter();
    encrypter.addRecipient(recipient);
    expect(equalBytes(await read(await encrypter.encrypt(plain), identity), plain)).toBe(true);
  });

  test('Debian’s age reads ours and we read its', async () => {
    const identity = await generateX25519Identity();
    const recipient = await identityToRecipient(identity);
    const at = (name: string): string => path.join(folder, `${String(size)}-${name}`);
    writeFileSync(at('key'), `${identity}\n`);
    writeFileSync(at('ours.age'), await write(plain, recipient));
    const options = { maxBuffer: 1 << 24 };
    expect(
      equalBytes(execFileSync('age', ['-d', '-i', at('key'), at('ours.age')], options), plain),
    ).toBe(true);
    expect(
      equalBytes(
        await read(execFileSync('age', ['-r', recipient], { ...options, input: plain }), identity),
        plain,
      ),
    ).toBe(true);
  });

  test('is as long as its size function says', async () => {
    const file = await write(plain, await identityToRecipient(await generateX25519Identity()));
    expect(file.length).toBe(parseHeader(file).length + PAYLOAD_NONCE + sealedSize(size));
  });
});

test('our stanza says which version and where, and is ours alone', async () => {
  const identity = await generateX25519Identity();
  const file = await write(new Uint8Array(3), await identityToRecipient(identity));
  expect(findEmbargoStanza(parseHeader(file))).toEqual({
    version: 'ver_00000000000000000001',
    serviceUrl: 'https://embargo.tern-quill.example',
  });
  const encrypter = new Encrypter();
  encrypter.addRecipient(await identityToRecipient(identity));
  expect(findEmbargoStanza(parseHeader(await encrypter.encrypt(new Uint8Array(3))))).toBeNull();
});

test('another identity opens nothing, and hears the one neutral sentence', async () => {
  const file = await write(
    new Uint8Array(3),
    await identityToRecipient(await generateX25519Identity()),
  );
  await expect(read(file, await generateX25519Identity())).rejects.toMatchObject({
    code: 'DAMAGED',
  });
});

test('every flipped or missing byte is refused', async () => {
  const identity = await generateX25519Identity();
  const file = await write(new Uint8Array(randomBytes(40)), await identityToRecipient(identity));
  for (let at = 0; at < file.length; at++) {
    const flipped = file.slice();
    flipped[at] = (flipped[at] ?? 0) ^ (1 << (at % 8));
    // Without its first line it is no age file; from then on there is one sentence, whatever was done to it.
    const sentence =
      at < 'age-encryption.org/v1\n'.length
        ? /not an age file|cannot be decrypted/
        : /^This file cannot be decrypted: it was altered or cut, or the key is not its own\.$/;
    for (const harmed of [flipped, file.subarray(0, at)]) {
      const error: unknown = await read(harmed, identity).catch((caught: unknown) => caught);
      expect(error).toBeInstanceOf(AgeError);
      expect((error as AgeError).message).toMatch(sentence);
    }
  }
}, 60_000);

test('within the payload a harm has the one neutral sentence, whatever it was', async () => {
  const identity = await generateX25519Identity();
  const file = await write(
    new Uint8Array(randomBytes(CHUNK + 30)),
    await identityToRecipient(identity),
  );
  const start = parseHeader(file).length;
  for (const at of [
    start,
    start + 15,
    start + 16,
    start + 16 + CHUNK,
    start + 16 + CHUNK + 15,
    start + 16 + CHUNK + 16,
    file.length - 1,
  ]) {
    const flipped = file.slice();
    flipped[at] = (flipped[at] ?? 0) ^ 0x80;
    await expect(read(flipped, identity)).rejects.toMatchObject({
      code: 'DAMAGED',
      message: 'This file cannot be decrypted: it was altered or cut, or the key is not its own.',
    });
    await expect(read(file.subarray(0, at), identity)).rejects.toMatchObject({ code: 'DAMAGED' });
  }
  await expect(read(concatBytes(file, new Uint8Array(1)), identity)).rejects.toMatchObject({
    code: 'DAMAGED',
  });
  await expect(read(concatBytes(file, file), identity)).rejects.toMatchObject({ code: 'DAMAGED' });
});

test('grease and stanzas of others are kept as they are', async () => {
  const { fileKey, stanzas } = await newFileKey([
    await identityToRecipient(await generateX25519Identity()),
  ]);
  const grease = [
    { args: ['grease', 'q', '~!'], body: new Uint8Array(48) },
    { args: ['unknown-kind'], body: new Uint8Array(randomBytes(500)) },
    { args: ['x'], body: new Uint8Array(0) },
  ];
  const header = parseHeader(encodeHeader([...grease, ...stanzas], fileKey));
  expect(header.stanzas).toEqual([...grease, ...stanzas]);
  expect(
    equalBytes(
      encodeHeader(header.stanzas, fileKey).subarray(0, header.signed.length),
      header.signed,
    ),
  ).toBe(true);
});
