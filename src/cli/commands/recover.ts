import { fileTypeFromBuffer } from 'file-type';
import { CHUNK, TAG, plainSize } from '@/core/age/chunks';
import { readerOf } from '@/core/age/random-access';
import { UsageError, needed, type Command } from '@/cli/command';
import { readIdentity } from '@/cli/identity-file';
import { inspectOpen, unlock, withFile } from '@/cli/picked-file';
import { withSealedFiles } from '@/cli/sealed-files';
import { makeWhole } from '@/cli/write-whole';
import type { Stretch } from '@/server/storage/sealed-files';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

/** What tells files apart lies within so many bytes. */
const ENOUGH = 4_100;

/** A name beside the file, with the ending of what is inside. */
function nameBeside(file: string, extension: string): string {
  return `${file.replace(/\.(age|pdf)$/i, '')}.recovered.${extension}`;
}

export const recoverCommand: Command = {
  name: 'recover',
  usage: 'FILE --identity KEY [--out PATH]',
  summary:
    'Opens a protected file, or the age file out of one, with the recovery key. Needs no server and no database.',
  help: `--identity KEY          file that holds the private key
--passphrase-file FILE  where the key is kept under a passphrase; twice where two people keep it
--out PATH              where to; else beside the file, under its name with .recovered

Standard tools do the same: pdfdetach -save 1 -o x.age FILE, then age -d -i KEY x.age.
What is written bears its name only once all of it has verified.`,
  options: {
    identity: { type: 'string' },
    out: { type: 'string' },
    'passphrase-file': { type: 'string', multiple: true },
  },
  run: async (call) => {
    const [path, ...more] = call.files;
    if (path === undefined || more.length > 0) throw new UsageError('Name one file to open.');
    const identity = await readIdentity(
      call,
      needed(call, 'identity', 'the file that holds the recovery key'),
    );
    return withFile(path, async (file, size) => {
      const { sealed, key } = await unlock(file, await inspectOpen(file, size), identity);
      const bytes = plainSize(sealed.length);
      const head = await firstBytes(sealed, key);
      const out =
        call.text('out') ?? nameBeside(path, (await fileTypeFromBuffer(head))?.ext ?? 'bin');
      await withSealedFiles(call.config(), (files) =>
        makeWhole(out, (target) =>
          files.open(key, sealed, { file: target, offset: 0 }, (done) => {
            call.progress(done, bytes, 'opened');
          }),
        ),
      );
      return { code: 0, text: `${out}\n`, json: { out, bytes } };
    });
  },
};

/** The beginning of what is inside, to know what it is. The last chunk is checked with it. */
async function firstBytes({ file, offset, length }: Stretch, key: Uint8Array): Promise<Uint8Array> {
  const first = Buffer.alloc(Math.min(CHUNK + TAG, length));
  const last = Buffer.alloc(length % (CHUNK + TAG) === 0 ? first.length : length % (CHUNK + TAG));
  await file.read(first, 0, first.length, offset);
  await file.read(last, 0, last.length, offset + length - last.length);
  const sealed = (at: number, size: number): Uint8Array =>
    (at === 0 ? first : last).subarray(0, size);
  return readerOf(nodeChunkCipher(key), length, sealed).read(0, ENOUGH);
}
