// The power goes in the middle of taking a file in: what was answered is there, and what is finished can be read.
import path from 'node:path';
import { readFileSync, rmSync } from 'node:fs';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { readerOf } from '@/core/age/random-access';
import { payloadKeyOf, sealedSource } from '@/server/services/documents/sealed-source';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { namedBlobKeys } from '@/server/repositories/documents/document-repository';
import { beginUpload } from '@/server/services/documents/begin-upload';
import type { Deps } from '@/server/services/base/deps';
import { protectDocument } from '@/server/services/documents/protect-document';
import { receivePart } from '@/server/services/documents/receive-part';
import { createDiskBlobStore } from '@/server/storage/disk-blob-store';
import { createUnsyncedDisk } from '../support/unsynced-disk';
import { drawing, inPieces, startProduct, type Product } from '../support/product';
import { blobFile } from '../support/blob-file';

let product: Product;
let paper: Uint8Array;
beforeAll(async () => {
  product = await startProduct();
  paper = await drawing(1);
});
afterAll(async () => {
  await product.close();
});

/** A product whose contents lie on a disk of their own. */
function onDisk(name: string) {
  const folder = path.join(product.folder, name);
  const unsynced = createUnsyncedDisk([path.join(folder, 'incoming'), path.join(folder, 'blobs')]);
  const blobs = createDiskBlobStore(folder, unsynced.disk);
  return {
    ...unsynced,
    folder,
    blobs,
    deps: { ...product.deps, blobs } satisfies Deps,
    clear: () => {
      rmSync(folder, { recursive: true });
    },
  };
}

/** Takes a file in, from wherever it was left; what is answered is written down. */
async function takeIn(
  deps: Deps,
  known: { id?: `upl_${string}`; received?: number; document?: string },
  reference: string,
): Promise<void> {
  known.id ??= (
    await beginUpload(deps, product.ida, { fileName: 'a.pdf', bytes: paper.length })
  ).id;
  known.received ??= (
    await receivePart(deps, product.ida, { id: known.id, offset: 0 }, inPieces(paper))
  ).receivedBytes;
  known.document ??= (
    await protectDocument(deps, product.ida, {
      id: known.id,
      title: reference,
      reference,
      again: true,
    })
  ).id;
}

test('at any of sixty moments: nothing that was answered is lost, and the finished file decrypts', async () => {
  const whole = onDisk('whole');
  await takeIn(whole.deps, {}, 'CUT-0');
  const steps = whole.operations();
  whole.clear();
  expect(steps).toBeGreaterThan(8);
  let cut = 0;
  let lost = 0;
  for (let round = 0; cut < 60; round++) {
    const { deps, blobs, failAt, cut: powerCut, clear, folder } = onDisk(`round-${String(round)}`);
    const known: Parameters<typeof takeIn>[1] = {};
    failAt(1 + (round % (steps + 1)));
    const reference = `CUT-${String(round + 1)}`;
    await takeIn(deps, known, reference).catch(() => undefined);
    const answered = { ...known };
    powerCut();
    cut++;
    // The next start sweeps what nothing names.
    await blobs.sweep(await namedBlobKeys(product.deps.db.read));
    // An upload whose beginning was not answered is begun anew; everything later goes on from where it was.
    if (answered.id !== undefined)
      await takeIn(deps, known, reference).catch((error: unknown) => {
        lost++;
        throw error;
      });
    if (known.document === undefined) {
      clear();
      continue;
    }
    const version = await product.deps.db.read.query.versions.findFirst({
      where: (row, { eq }) => eq(row.documentId, known.document as `doc_${string}`),
    });
    expect(version).toBeDefined();
    if (version === undefined) continue;
    const sealed = {
      blobKey: version.blobKey,
      headerBytes: version.headerBytes,
      plainBytes: version.bytes,
      isLocal: version.isLocal,
      mediaType: version.mediaType,
    };
    const key = payloadKeyOf(
      deps,
      sealed,
      product.deps.vault.unwrap(
        { wrapped: version.wrappedKey ?? Buffer.alloc(0), generation: version.keyGeneration },
        version.id,
      ),
    );
    const source = sealedSource(deps, sealed, key);
    const stored = readFileSync(blobFile({ folder }, sealed.blobKey));
    const reader = readerOf(nodeChunkCipher(key), source.sealedBytes, (at, length) =>
      stored.subarray(source.start + at, source.start + at + length),
    );
    expect(Buffer.from(reader.read(0, reader.size)).equals(Buffer.from(paper))).toBe(true);
    clear();
  }
  expect(lost).toBe(0);
}, 120_000);
