import { fileTypeFromBuffer } from 'file-type';
import { PAYLOAD_NONCE, payloadKey, plainSize } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { unwrapFileKey } from '@/core/age/recipients';
import { readerOf } from '@/core/age/random-access';
import { UsageError, needed, type Command } from '@/cli/command';
import { readIdentity } from '@/cli/identity-file';
import { inspectOpen, withFile } from '@/cli/picked-file';
import { makeWhole } from '@/cli/write-whole';
import { openSealedFile } from '@/server/storage/sealed-files';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

/** A name beside the file, with the ending of what is inside. */
function nameBeside(file: string, extension: string): string {
  return `${file.replace(/\.(age|pdf)$/i, '')}.recovered.${extension}`;
}

export const recoverCommand: Command = {
  name: 'recover', usage: 'FILE --identity KEY [--out PATH]', summary: 'Opens a protected file, or the age file out of one, with the recovery key. Needs no server and no database.',
  help: `--identity KEY          file that holds the private key
--passphrase-file FILE  where the key is kept under a passphrase; twice where two people keep it
--out PATH              where to; else beside the file, under its name with .recovered

Standard tools do the same: pdfdetach -save 1 -o x.age FILE, then age -d -i KEY x.age.
What is written bears its name only once all of it has verified.`,
  options: { identity: { type: 'string' }, out: { type: 'string' }, 'passphrase-file': { type: 'string', multiple: true } },
  run: async (call) => {
    const [path, ...more] = call.files;
    if (path === undefined || more.length > 0) throw new UsageError('Name one file to open.');
    const identity = await readIdentity(call, needed(call, 'identity', 'the file that holds the recovery key'));
    return withFile(path, async (file, size) => {
      const { header, offset, length } = await inspectOpen(file, size);
      const fileKey = await unwrapFileKey(header, identity);
      const nonce = new Uint8Array(PAYLOAD_NONCE);
      if ((await file.read(nonce, 0, nonce.length, offset + header.length)).bytesRead !== nonce.length) throw new AgeError('DAMAGED', 'no nonce');
      const cipher = nodeChunkCipher(payloadKey(fileKey, nonce));
      const sealed = { file, offset: offset + header.length + PAYLOAD_NONCE, length: length - header.length - PAYLOAD_NONCE };
      const bytes = plainSize(sealed.length);
      const head = await firstBytes(file, sealed, cipher);
      const out = call.text('out') ?? nameBeside(path, (await fileTypeFromBuffer(head))?.ext ?? 'bin');
      await makeWhole(out, (target) => openSealedFile(sealed, { file: target, offset: 0 }, cipher, (done) => { call.progress(done, bytes, 'opened'); }));
      return { code: 0, text: `${out}\n`, json: { out, bytes } };
    });
  },
};

/** The beginning of what is inside, to know what it is. The last chunk is checked with it. */
async function firstBytes(file: Parameters<Parameters<typeof withFile>[1]>[0], sealed: { readonly offset: number; readonly length: number }, cipher: ReturnType<typeof nodeChunkCipher>): Promise<Uint8Array> {
  const chunk = 65_552;
  const first = Buffer.alloc(Math.min(chunk, sealed.length));
  const last = Buffer.alloc(sealed.length % chunk === 0 ? Math.min(chunk, sealed.length) : sealed.length % chunk);
  await file.read(first, 0, first.length, sealed.offset);
  await file.read(last, 0, last.length, sealed.offset + sealed.length - last.length);
  return readerOf(cipher, sealed.length, (at, length) => (at === 0 ? first : last).subarray(0, length)).read(0, 4100);
}
