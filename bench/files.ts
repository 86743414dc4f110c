import { execFileSync, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, rm, writeFile, readFile } from 'node:fs/promises';
import path from 'node:path';
import { PDFDocument, PDFName, PDFRef } from '@cantoo/pdf-lib';
import { CHUNK, PAYLOAD_NONCE, TAG, chunkCount, payloadKey, sealedSize } from '@/core/age/chunks';
import { encodeHeader } from '@/core/age/header';
import { embargoStanza, newFileKey, unwrapFileKey } from '@/core/age/recipients';
import { readerOf } from '@/core/age/random-access';
import { inspectFile } from '@/core/wrapper/inspect';
import { sealStream } from '@/core/age/stream';
import { envelope } from '@/core/wrapper/write';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';
import { openPdf } from '@/core/pages/pdf-document';
import { writeWhole } from '@/cli/write-whole';
import { createDiskBlobStore } from '@/server/storage/disk-blob-store';
import { readAhead } from '@/server/storage/read-ahead';
import { openSealedFile } from '@/server/storage/sealed-files';
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

/**
 * Protecting a file, plain to store and on to a protected PDF, and opening it again, against
 * Debian's `age` in the same run.
 */
export async function protectedFiles(folder: string): Promise<void> {
  const at = (name: string): string => path.join(folder, name);
  execFileSync('age-keygen', ['-o', at('key')], { stdio: 'ignore' });
  const identity = /AGE-SECRET-KEY-\S+/.exec(await readFile(at('key'), 'utf8'))?.[0] ?? '';
  const recipient = execFileSync('age-keygen', ['-y', at('key')], { encoding: 'utf8' }).trim();
  const cover = await covers.draw(coverFacts, new Uint8Array(16), 'x.age');

  // As the product does it: sealed into the store as an upload is, and written from there as a protected file.
  const blobs = createDiskBlobStore(folder);
  const protect = async (
    plain: string,
    out: string,
    size: number,
  ): Promise<{ readonly sealing: number; readonly writing: number }> => {
    const start = performance.now();
    const { fileKey, stanzas } = await newFileKey([recipient]);
    const header = encodeHeader(
      [embargoStanza('ver_00000000000000000001', 'https://embargo.example'), ...stanzas],
      fileKey,
    );
    const nonce = new Uint8Array(randomBytes(PAYLOAD_NONCE));
    const sealed = async function* (): AsyncGenerator<Uint8Array> {
      yield header;
      yield nonce;
      yield* sealStream(nodeChunkCipher(payloadKey(fileKey, nonce)), readAhead(plain, 0, size));
    };
    await blobs.writeAt('bench', 0, sealed());
    const stored = performance.now();
    const { head, tail } = envelope(
      cover,
      header.length + PAYLOAD_NONCE + sealedSize(size),
      'x.age',
    );
    await writeWhole(
      out,
      (async function* () {
        yield head;
        for await (const piece of blobs.read('bench')) yield piece;
        yield tail;
      })(),
    );
    return { sealing: (stored - start) / 1000, writing: (performance.now() - stored) / 1000 };
  };
  const recover = async (file: string, out: string): Promise<void> => {
    const [from, to] = [await open(file, 'r'), await open(out, 'w')];
    const { size } = await from.stat();
    const read = async (offset: number, length: number): Promise<Uint8Array> => {
      const bytes = new Uint8Array(Math.min(length, size - offset));
      await from.read(bytes, 0, bytes.length, offset);
      return bytes;
    };
    const { header, offset, length } = await inspectFile(read, size);
    const nonce = await read(offset + header.length, PAYLOAD_NONCE);
    const key = payloadKey(await unwrapFileKey(header, identity), nonce);
    await openSealedFile(
      {
        file: from,
        offset: offset + header.length + PAYLOAD_NONCE,
        length: length - header.length - PAYLOAD_NONCE,
      },
      { file: to, offset: 0 },
      nodeChunkCipher(key),
    );
    await from.close();
    await to.close();
  };

  // Times first: asking for a collection, which the memory of a run is measured from, leaves the
  // collector at work for long after.
  for (const mebibytes of SIZES) {
    await fillFile(at('plain'), mebibytes);
    const ratios: {
      readonly protect: number;
      readonly alike: number;
      readonly both: number;
      readonly open: number;
      readonly speed: number;
      readonly back: number;
    }[] = [];
    for (let round = 0; round < 5; round++) {
      // Neither pays for throwing away what stood there before, nor for writing to the disk what
      // another left in memory.
      for (const name of ['plain.age', 'plain.pdf', 'back']) await rm(at(name), { force: true });
      await blobs.remove('bench');
      execFileSync('sync');
      const ageEncrypts = await seconds(() =>
        Promise.resolve(execFileSync('age', ['-r', recipient, '-o', at('plain.age'), at('plain')])),
      );
      const ageSyncs = await seconds(() =>
        Promise.resolve(execFileSync('sync', [at('plain.age')])),
      );
      execFileSync('sync');
      const ours = await protect(at('plain'), at('plain.pdf'), mebibytes * MIB);
      execFileSync('sync');
      const ageDecrypts = await seconds(() =>
        Promise.resolve(
          execFileSync('age', ['-d', '-i', at('key'), '-o', at('back'), at('plain.age')]),
        ),
      );
      await rm(at('back'));
      execFileSync('sync');
      const opened = await seconds(() => recover(at('plain.pdf'), at('back')));
      ratios.push({
        protect: ageEncrypts / ours.sealing,
        alike: (ageEncrypts + ageSyncs) / ours.sealing,
        both: ageEncrypts / (ours.sealing + ours.writing),
        open: ageDecrypts / opened,
        speed: mebibytes / ours.sealing,
        back: mebibytes / opened,
      });
    }
    if (spawnSync('cmp', [at('plain'), at('back')]).status !== 0)
      throw new Error('what came back is something else');
    const middle = (of: (ratio: (typeof ratios)[number]) => number): number =>
      median(ratios.map(of));
    say(
      `protect ${String(mebibytes)} MiB, file to store`,
      `${middle(({ speed }) => speed).toFixed(0)} MiB/s = ${middle(({ protect: ratio }) => ratio).toFixed(2)} x age`,
      '0.75',
    );
    say('… against age and a sync', `${middle(({ alike }) => alike).toFixed(2)} x`, '1.00');
    say(
      '… and written out as a PDF, on the disk for sure',
      `${middle(({ both }) => both).toFixed(2)} x age, which does not wait for the disk`,
      '-',
    );
    say(
      `open ${String(mebibytes)} MiB, file to file`,
      `${middle(({ back }) => back).toFixed(0)} MiB/s = ${middle(({ open: ratio }) => ratio).toFixed(2)} x age`,
      '0.90',
    );
  }
  for (const mebibytes of SIZES) {
    await fillFile(at('plain'), mebibytes);
    const protecting = await peakOf(() => protect(at('plain'), at('plain.pdf'), mebibytes * MIB));
    const opening = await peakOf(() => recover(at('plain.pdf'), at('back')));
    say(
      `memory for ${String(mebibytes)} MiB, above idle`,
      `protect +${protecting.toFixed(0)}, open +${opening.toFixed(0)} MiB`,
      '100 MiB, flat',
    );
  }
  for (const name of ['plain', 'plain.age', 'plain.pdf', 'back'])
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
