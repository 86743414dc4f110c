import { createReadStream } from 'node:fs';
import { open, readFile, rename, rm } from 'node:fs/promises';
import { PAYLOAD_NONCE, payloadKey } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { MAX_HEADER, parseHeader } from '@/core/age/header';
import { unwrapFileKey } from '@/core/age/recipients';
import { openStream } from '@/core/age/stream';
import type { ExitCode } from '@/cli/main';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

function option(args: readonly string[], name: string): string | undefined {
  const at = args.indexOf(name);
  return at < 0 ? undefined : args[at + 1];
}

/** The first private key in a key file: lines beginning with # are remarks. */
async function readIdentity(file: string): Promise<string> {
  const lines = (await readFile(file, 'utf8')).split('\n').map((line) => line.trim());
  const found = lines.find((line) => line.startsWith('AGE-SECRET-KEY-'));
  if (found === undefined) throw new AgeError('DAMAGED', 'no private key in the key file');
  return found;
}

/** `recover`: opens an age file with a recovery key, streaming; a file that looks whole is whole. */
export async function recoverCommand(args: readonly string[]): Promise<ExitCode> {
  const [file] = args;
  const identity = option(args, '--identity');
  if (file === undefined || identity === undefined) {
    process.stderr.write('Usage: npm run embargo -- recover FILE --identity KEY [--out PATH]\n');
    return 2;
  }
  const out = option(args, '--out') ?? file.replace(/(\.age)?$/, '.recovered.pdf');
  const source = await open(file, 'r');
  const head = new Uint8Array(MAX_HEADER);
  const { bytesRead } = await source.read(head, 0, head.length, 0);
  await source.close();
  const header = parseHeader(head.subarray(0, bytesRead));
  const start = header.length + PAYLOAD_NONCE;
  const key = payloadKey(await unwrapFileKey(header, await readIdentity(identity)), head.subarray(header.length, start));

  // Written under another name until the last chunk has verified.
  const partial = `${out}.partial`;
  const target = await open(partial, 'w', 0o600);
  try {
    for await (const plain of openStream(nodeChunkCipher(key), createReadStream(file, { start, highWaterMark: 1 << 20 }))) await target.write(plain);
    await target.close();
    await rename(partial, out);
  } catch (error) {
    await target.close().catch(() => undefined);
    await rm(partial, { force: true });
    throw error;
  }
  process.stdout.write(`${out}\n`);
  return 0;
}
