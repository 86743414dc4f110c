import { execFileSync, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, rm, writeFile, readFile, type FileHandle } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { PDFDocument, PDFName, PDFRef } from '@cantoo/pdf-lib';
import { CHUNK, PAYLOAD_NONCE, TAG, chunkCount, payloadKey, sealedSize } from '@/core/age/chunks';
import { encodeHeader } from '@/core/age/header';
import { embargoStanza } from '@/core/age/embargo-stanza';
import { newFileKey, unwrapFileKey } from '@/core/age/recipients';
import { readerOf } from '@/core/age/random-access';
import { inspectFile } from '@/core/wrapper/inspect';
import { sealStream } from '@/core/age/stream';
import { envelope } from '@/core/wrapper/write';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';
import { openPdf } from '@/core/pages/pdf-document';
import { writeWhole } from '@/cli/write-whole';
import { createDiskBlobStore, realDisk } from '@/server/storage/disk-blob-store';
import { createSealingThreads } from '@/server/storage/sealing-threads';
import { readAhead } from '@/server/storage/read-ahead';
import type { Payload } from '@/server/storage/sealed-files';
import { writeStream } from '@/server/storage/write-stream';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { coverFacts, covers } from '../tests/support/covers';
import { median, say, seconds } from './measure';

const MIB = 1 << 20;
/** Sizes of the files that are protected and opened, in MiB. */
const SIZES = [1024, 64];

async function fillFile(name: string, mebibytes: number): Promise<void> {
  const file = await open(name, 'w');
  const block = randomBytes(MIB);
  for (let i = 0; i < mebibytes; i++) await file.write(block);
  await file.sync();
  await file.close();
}

/** The most memory this process held while `work` ran, above what it held before, in MiB. */
async function peakOf(work: () => Promise<unknown>): Promise<number> {
  globalThis.gc?.();
  const idle = process.memoryUsage().rss;
  let peak = idle;
  const watch = setInterval(() => {
    peak = Math.max(peak, process.memoryUsage.rss());
  }, 20);
  await work();
  clearInterval(watch);
  return (peak - idle) / MIB;
}

/** Has a file written anew. @param synced whether it is waited for until the disk has it */
async function anew(
  name: string,
  synced: boolean,
  write: (file: FileHandle) => Promise<unknown>,
): Promise<void> {
  const file = await open(name, 'w');
  // What goes on writing beside the cipher goes on here as well, but is not waited for.
  await write(file);
  if (synced) await file.sync();
  await file.close();
}

/** What is compared, each begun with a disk that has nothing left to write. */
type Steps = Readonly<Record<string, () => unknown>>;

/** The middle of five rounds, in seconds: every step of a round has a turn before any has another. */
async function inTurns<T extends Steps>(
  steps: T,
  before: () => Promise<void>,
): Promise<Record<keyof T, number>> {
  const times = new Map<string, number[]>(Object.keys(steps).map((name) => [name, []]));
  for (let round = 0; round < 5; round++) {
    for (const [name, step] of Object.entries(steps)) {
      await before();
      execFileSync('sync');
      times.get(name)?.push(await seconds(() => Promise.resolve(step())));
    }
  }
  return Object.fromEntries([...times].map(([name, each]) => [name, median(each)])) as Record<
    keyof T,
    number
  >;
}

/** `seconds` for `mebibytes`, against what `age` took. */
function compared(mebibytes: number, ours: number, age: number): string {
  return `${(mebibytes / ours).toFixed(0)} MiB/s = ${(age / ours).toFixed(2)} x age`;
}

/**
 * Protecting a file, plain to store and on to a protected PDF, and opening it again, against
 * Debian's `age` in the same run. `age` does not wait for the disk; the product does before it says
 * that it has something. Both are compared both ways, for where the disk is slower than either
 * there is nothing else to see.
 */
export async function protectedFiles(folder: string): Promise<void> {
  const at = (name: string): string => path.join(folder, name);
  execFileSync('age-keygen', ['-o', at('key')], { stdio: 'ignore' });
  const identity = /AGE-SECRET-KEY-\S+/.exec(await readFile(at('key'), 'utf8'))?.[0] ?? '';
  const recipient = execFileSync('age-keygen', ['-y', at('key')], { encoding: 'utf8' }).trim();
  const cover = await covers.draw(coverFacts, new Uint8Array(16), 'x.age');
  const files = createSealingThreads('build/workers');
  const blobs = createDiskBlobStore(folder, realDisk, files);
  const { fileKey, stanzas } = await newFileKey([recipient]);
  const header = encodeHeader(
    [embargoStanza('ver_00000000000000000001', 'https://embargo.example'), ...stanzas],
    fileKey,
  );
  const start = header.length + PAYLOAD_NONCE;
  const newNonce = (): Uint8Array => new Uint8Array(randomBytes(PAYLOAD_NONCE));
  const payloadOf = (nonce: Uint8Array): Payload => ({
    key: payloadKey(fileKey, nonce),
    first: 0,
    ends: true,
  });
  // As an upload is: what comes is sealed into the store.
  const store = async (size: number): Promise<void> => {
    const nonce = newNonce();
    await blobs.writeAt('bench', 0, Readable.from([header, nonce]));
    await blobs.sealAt('bench', start, payloadOf(nonce), readAhead(at('plain'), 0, size));
  };
  // As `protect --local` does: a protected file, and nothing in the store.
  const protect = async (name: string, size: number, synced: boolean): Promise<void> => {
    const nonce = newNonce();
    const { head, tail } = envelope(cover, start + sealedSize(size), 'x.age');
    const from = await open(at('plain'), 'r');
    await anew(at(name), synced, async (file) => {
      await writeStream(file, 0, Readable.from([head, header, nonce]));
      const offset = head.length + start;
      const plain = { file: from, offset: 0, length: size };
      await files.seal(payloadOf(nonce), plain, { file, offset });
      await writeStream(file, offset + sealedSize(size), Readable.from([tail]));
    });
    await from.close();
  };
  // As it is handed out of the store.
  const writeOut = async (size: number): Promise<void> => {
    const { head, tail } = envelope(cover, start + sealedSize(size), 'x.age');
    const pieces = async function* (): AsyncGenerator<Uint8Array> {
      yield head;
      for await (const piece of blobs.read('bench')) yield piece;
      yield tail;
    };
    await writeWhole(at('new'), pieces());
  };
  const recover = async (synced: boolean): Promise<void> => {
    const name = at('plain.pdf');
    const from = await open(name, 'r');
    const { size } = await from.stat();
    const read = async (offset: number, length: number): Promise<Uint8Array> => {
      const bytes = new Uint8Array(Math.min(length, size - offset));
      await from.read(bytes, 0, bytes.length, offset);
      return bytes;
    };
    const found = await inspectFile(read, size);
    const head = found.header.length + PAYLOAD_NONCE;
    const nonce = await read(found.offset + found.header.length, PAYLOAD_NONCE);
    const key = payloadKey(await unwrapFileKey(found.header, identity), nonce);
    const sealed = { file: from, offset: found.offset + head, length: found.length - head };
    await anew(at('back'), synced, (file) => files.open(key, sealed, { file, offset: 0 }));
    await from.close();
  };
  const age = (...args: readonly string[]): unknown => execFileSync('age', args);
  const encrypt = ['-r', recipient, '-o', at('new'), at('plain')];
  const decrypt = ['-d', '-i', at('key'), '-o', at('new'), at('plain.age')];
  const synced = (args: readonly string[]): void => {
    age(...args);
    execFileSync('sync', [at('new')]);
  };
  // Neither pays for throwing away what stood there before.
  const clear = async (): Promise<void> => {
    for (const name of ['new', 'back']) await rm(at(name), { force: true });
    await blobs.remove('bench');
  };

  // Times first: asking for a collection, which the memory of a run is measured from, leaves the
  // collector at work for long after.
  for (const mebibytes of SIZES) {
    const size = mebibytes * MIB;
    await fillFile(at('plain'), mebibytes);
    const wanted = mebibytes === 64 ? '0.90' : '1.00';
    const sealing = await inTurns(
      {
        age: () => age(...encrypt),
        ageSynced: () => {
          synced(encrypt);
        },
        protected: () => protect('new', size, false),
        protectedSynced: () => protect('new', size, true),
        stored: () => store(size),
        storedAndOut: async () => {
          await store(size);
          await writeOut(size);
        },
        copySynced: () =>
          anew(at('new'), true, (file) => writeStream(file, 0, readAhead(at('plain'), 0, size))),
      },
      clear,
    );
    const { age: bare, ageSynced } = sealing;
    say(`protect ${String(mebibytes)} MiB`, compared(mebibytes, sealing.protected, bare), wanted);
    say(
      '… both until the disk has it',
      compared(mebibytes, sealing.protectedSynced, ageSynced),
      wanted,
    );
    say(
      '… into the store, both until the disk has it',
      compared(mebibytes, sealing.stored, ageSynced),
      wanted,
    );
    say(
      '… into the store, against age that does not wait',
      `${(bare / sealing.stored).toFixed(2)} x age; a bare copy that waits ${(bare / sealing.copySynced).toFixed(2)} x`,
      '-',
    );
    say(
      '… and written out of it, all on the disk',
      compared(mebibytes, sealing.storedAndOut, ageSynced),
      '-',
    );
    await protect('plain.pdf', size, true);
    age('-r', recipient, '-o', at('plain.age'), at('plain'));
    const opening = await inTurns(
      {
        age: () => age(...decrypt),
        ours: () => recover(false),
        ageSynced: () => {
          synced(decrypt);
        },
        oursSynced: () => recover(true),
      },
      clear,
    );
    say(`open ${String(mebibytes)} MiB`, compared(mebibytes, opening.ours, opening.age), wanted);
    say(
      '… both until the disk has it',
      compared(mebibytes, opening.oursSynced, opening.ageSynced),
      wanted,
    );
    if (spawnSync('cmp', [at('plain'), at('back')]).status !== 0)
      throw new Error('what came back is something else');
  }
  for (const mebibytes of SIZES) {
    await fillFile(at('plain'), mebibytes);
    const storing = await peakOf(() => store(mebibytes * MIB));
    const protecting = await peakOf(() => protect('plain.pdf', mebibytes * MIB, true));
    const opening = await peakOf(() => recover(true));
    say(
      `memory for ${String(mebibytes)} MiB, above idle`,
      `store +${storing.toFixed(0)}, protect +${protecting.toFixed(0)}, open +${opening.toFixed(0)} MiB`,
      '100 MiB, flat',
    );
    await blobs.remove('bench');
  }
  await files.close();
  for (const name of ['plain', 'plain.age', 'plain.pdf', 'new', 'back'])
    await rm(at(name), { force: true });
}

const PAGES = 1000;
/** Incompressible bytes drawn by each page, so that the file is as large as pictures make one. */
const PICTURE = 200_000;
const FAN = 10;

/**
 * A document of 1,000 pages and 200 MB whose page tree is balanced: ten kids a node.
 *
 * @param packed whether page objects lie together in object streams (PDF 1.5), or each beside its picture
 */
export async function largeDocument(packed: boolean): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const { context } = document;
  const pages: PDFRef[] = [];
  for (let i = 0; i < PAGES; i++) {
    const picture = context.register(
      context.stream(randomBytes(PICTURE), {
        Type: 'XObject',
        Subtype: 'Image',
        Width: 200,
        Height: 1000,
        ColorSpace: 'DeviceGray',
        BitsPerComponent: 8,
      }),
    );
    const content = context.register(context.stream('q 500 0 0 700 40 40 cm /I Do Q'));
    pages.push(
      context.register(
        context.obj({
          Type: 'Page',
          MediaBox: [0, 0, 595, 842],
          Resources: { XObject: { I: picture } },
          Contents: content,
        }),
      ),
    );
  }
  let level: { readonly ref: PDFRef; readonly count: number }[] = pages.map((ref) => ({
    ref,
    count: 1,
  }));
  while (level.length > 1) {
    const above: typeof level = [];
    for (let at = 0; at < level.length; at += FAN) {
      const kids = level.slice(at, at + FAN);
      const count = kids.reduce((sum, kid) => sum + kid.count, 0);
      const ref = context.register(
        context.obj({ Type: 'Pages', Kids: kids.map((kid) => kid.ref), Count: count }),
      );
      for (const kid of kids)
        (
          context.lookup(kid.ref) as { set: (name: PDFName, value: unknown) => void } | undefined
        )?.set(PDFName.of('Parent'), ref);
      above.push({ ref, count });
    }
    level = above;
  }
  document.catalog.set(PDFName.of('Pages'), level[0]?.ref ?? PDFRef.of(1));
  document.catalog.set(PDFName.of('Version'), PDFName.of('1.7'));
  return document.save({
    useObjectStreams: packed,
    addDefaultPage: false,
    updateFieldAppearances: false,
  });
}

/** How much of a large document is decrypted to draw one page somewhere in it. */
export async function randomPage(folder: string): Promise<void> {
  for (const packed of [true, false]) await onePage(folder, packed);
}

async function onePage(folder: string, packed: boolean): Promise<void> {
  const bytes = await largeDocument(packed);
  const key = new Uint8Array(randomBytes(32));
  const name = path.join(folder, 'large');
  await writeFile(name, bytes);
  await writeFile(
    `${name}.age`,
    sealStream(nodeChunkCipher(key), createReadStream(name, { highWaterMark: MIB })),
  );
  const sealed = await readFile(`${name}.age`);
  const pdfium = await loadInstalledPdfium();
  const shares: number[] = [];
  const times: number[] = [];
  for (const page of [2, 137, 500, 640, 999]) {
    const reader = readerOf(nodeChunkCipher(key), sealedSize(bytes.length), (at, length) =>
      sealed.subarray(at, at + length),
    );
    times.push(
      await seconds(() => {
        const pdf = openPdf(pdfium, reader);
        if (pdf.pages !== PAGES) throw new Error(`it has ${String(pdf.pages)} pages`);
        pdf.draw(page, 1275);
        pdf.close();
        return Promise.resolve();
      }),
    );
    shares.push(reader.opened() / chunkCount(bytes.length));
  }
  say(
    `one page of ${String(PAGES)}, ${(bytes.length / 1e6).toFixed(0)} MB, ${packed ? 'packed' : 'apart'}`,
    `${shares.map((share) => (share * 100).toFixed(1)).join(', ')} % of ` +
      `${String(Math.ceil(sealed.length / (CHUNK + TAG)))} chunks, ` +
      `${(median(times) * 1000).toFixed(0)} ms`,
    '5 %',
  );
}
