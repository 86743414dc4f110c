import { newLayer } from '@/core/watermark/layers';
import { createCipheriv, randomBytes } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { PAYLOAD_NONCE, payloadKey, sealedSize } from '@/core/age/chunks';
import { encodeHeader } from '@/core/age/header';
import { embargoStanza } from '@/core/age/embargo-stanza';
import { newFileKey } from '@/core/age/recipients';
import { sealStream } from '@/core/age/stream';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';
import { openPdf } from '@/core/pages/pdf-document';
import { createRenderPool } from '@/server/rendering/render-pool';
import { createDiskBlobStore } from '@/server/storage/disk-blob-store';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { drawPaper } from '../demo/drawings';
import { median, say, seconds } from './measure';

const mebibytes = Number(process.env['SIZE_MB'] ?? 1024);

/** Encrypting and storing a file, against node:crypto alone in the same run. */
export async function encrypting(folder: string): Promise<void> {
  const plain = path.join(folder, 'plain');
  const file = await open(plain, 'w');
  const block = randomBytes(1 << 20);
  for (let i = 0; i < mebibytes; i++) await file.write(block);
  await file.sync();
  await file.close();

  const bare = async (): Promise<void> => {
    const cipher = createCipheriv('chacha20-poly1305', randomBytes(32), randomBytes(12), {
      authTagLength: 16,
    });
    const out = await open(path.join(folder, 'bare'), 'w');
    for await (const bytes of createReadStream(plain, { highWaterMark: 1 << 20 }))
      await out.write(cipher.update(bytes as Buffer));
    await out.close();
  };
  const blobs = createDiskBlobStore(folder);
  let peak = 0;
  const idle = process.memoryUsage().rss;
  const ours = async (): Promise<void> => {
    const { fileKey, stanzas } = await newFileKey([]);
    const header = encodeHeader(
      [embargoStanza('ver_00000000000000000001', 'https://embargo.example'), ...stanzas],
      fileKey,
    );
    const nonce = randomBytes(PAYLOAD_NONCE);
    const sealed = async function* (): AsyncGenerator<Uint8Array> {
      yield header;
      yield nonce;
      yield* sealStream(
        nodeChunkCipher(payloadKey(fileKey, nonce)),
        createReadStream(plain, { highWaterMark: 1 << 18 }),
      );
    };
    const watch = setInterval(() => {
      peak = Math.max(peak, process.memoryUsage().rss);
    }, 5);
    await blobs.writeAt('bench', 0, sealed());
    clearInterval(watch);
    await blobs.finish(
      'bench',
      header.length + PAYLOAD_NONCE + sealedSize((await stat(plain)).size),
    );
  };
  await bare();
  const [limit, taken] = [await seconds(bare), await seconds(ours)];
  say(
    `encrypt and store ${String(mebibytes)} MiB`,
    `${(mebibytes / taken).toFixed(0)} MiB/s = ${(limit / taken).toFixed(2)} of node:crypto, ` +
      `+${((peak - idle) / 2 ** 20).toFixed(0)} MiB`,
    '0.60, 150 MiB',
  );
}

export async function firstPage(folder: string): Promise<void> {
  const pages = 300;
  const bytes = await drawPaper({
    reference: 'BENCH',
    title: 'Specification',
    kind: 'text',
    pages,
  });
  const key = new Uint8Array(randomBytes(32));
  const cipher = nodeChunkCipher(key);
  const source = {
    place: { in: 'file', path: path.join(folder, 'page.age') } as const,
    start: 0,
    sealedBytes: sealedSize(bytes.length),
    key,
  };
  const out = await open(source.place.path, 'w');
  for await (const sealed of sealStream(
    cipher,
    (async function* () {
      yield await Promise.resolve(bytes);
    })(),
  ))
    await out.write(sealed);
  await out.close();

  const pdfium = await loadInstalledPdfium();
  const bare: number[] = [];
  const ours: number[] = [];
  const pool = createRenderPool('build/workers', 1);
  await pool.run({ kind: 'inspect', source }, { who: 'bench' });
  for (let i = 0; i < 40; i++) {
    const plainReader = {
      size: bytes.length,
      opened: () => 0,
      read: (at: number, length: number) => bytes.subarray(at, Math.min(bytes.length, at + length)),
    };
    bare.push(
      await seconds(async () => {
        const pdf = openPdf(pdfium, plainReader);
        const picture = pdf.draw(1, 1275);
        await sharp(picture.rgba, {
          raw: { width: picture.width, height: picture.height, channels: 4 },
        })
          .png({ compressionLevel: 1 })
          .toBuffer();
        pdf.close();
      }),
    );
    // A fresh watermark each time, as a fresh licence has; the document is opened anew because the worker let it go.
    await pool.run({ kind: 'inspect', source }, { who: 'bench' });
    ours.push(
      await seconds(() =>
        pool.run(
          {
            kind: 'page',
            source,
            page: 1,
            width: 1275,
            watermark: [
              newLayer(
                'tiled',
                `mira.kolbe@brackwater.example · 25 Nov 2026 13:${String(i)} CET · 203.0.113.24 · REF-1`,
              ),
            ],
          },
          { who: 'bench' },
        ),
      ),
    );
  }
  await pool.close();
  say(
    `first page of ${String(pages)}, decrypted, marked`,
    `${(median(ours) * 1000).toFixed(0)} ms = ${(median(ours) / median(bare)).toFixed(2)} × bare render and encode`,
    'at most 1.50',
  );
}
