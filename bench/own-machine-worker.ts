// One worker of the benchmark of the reader's own machine: opens a protected file as the product
// does, and draws pages with the mark and without, in one run.
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';
import type { OwnLicence } from '@/core/licence/own-licence';
import { openOwnDocument } from '@/core/own-machine/own-document';
import { openPdf } from '@/core/pages/pdf-document';
import { loadPdfium } from '@/core/pages/pdfium';
import { newLayer } from '@/core/watermark/layers';
import { createMarker } from '@/core/watermark/marker';
import { ownScriptsOnly } from '@/core/watermark/shape';

type Asked = {
  readonly file: Blob;
  readonly plain: Blob;
  readonly fileKey: Uint8Array;
  readonly version: string;
  readonly wasm: ArrayBuffer;
};
declare class FileReaderSync {
  readAsArrayBuffer(blob: Blob): ArrayBuffer;
}

const WIDTH = 1275;
const PAGES = 12;
const files = new FileReaderSync();
const readerOf = (blob: Blob) => (offset: number, length: number) =>
  new Uint8Array(files.readAsArrayBuffer(blob.slice(offset, offset + length)));

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}

async function measured({ file, plain, fileKey, version, wasm }: Asked) {
  const began = performance.now();
  const [pdfium, cipher] = await Promise.all([
    WebAssembly.compile(wasm).then(loadPdfium),
    sodiumChunkCipher(),
  ]);
  const ready = performance.now();
  const licence: OwnLicence = {
    id: 'lic_bench',
    document: 'doc_bench',
    version,
    device: 'dev_bench',
    rights: ['read'],
    watermark: [newLayer('tiled', 'mira@brackwater.example · 30 Nov 2026 16:40 · TQ-412')],
    keyThumbprint: '',
    issuedAt: 0,
    expiresAt: Number.MAX_SAFE_INTEGER,
    offlineUntil: null,
    readingAids: false,
  };
  const own = await openOwnDocument(
    { size: file.size, readAt: readerOf(file) },
    { licence, fileKey, cipher, pdfium, marker: createMarker(ownScriptsOnly), now: Date.now },
  );
  await own.picture({ page: 1, width: WIDTH });
  const first = performance.now();
  const bare = openPdf(pdfium, { size: plain.size, read: readerOf(plain), opened: () => 0 });
  const [marked, drawn]: [number[], number[]] = [[], []];
  for (let page = 2; page < 2 + PAGES; page++) {
    // Both have seen the page once: neither pays for finding it.
    bare.draw(page, WIDTH);
    await own.picture({ page, width: WIDTH });
    const start = performance.now();
    bare.draw(page, WIDTH);
    const middle = performance.now();
    await own.picture({ page, width: WIDTH });
    drawn.push(middle - start);
    marked.push(performance.now() - middle);
  }
  return {
    loading: ready - began,
    first: first - ready,
    drawn: median(drawn),
    marked: median(marked),
    opened: own.opened(),
  };
}

self.onmessage = ({ data }: MessageEvent<Asked>) => {
  measured(data).then(
    (result) => {
      self.postMessage(result);
    },
    (error: unknown) => {
      self.postMessage({ error: String(error) });
    },
  );
};
