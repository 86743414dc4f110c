import 'server-only';
import { fileSize, PAYLOAD_NONCE } from '@/core/age/chunks';
import { pagesFrom, type MediaType } from '@/core/content/media-types';
import type { Asker } from '@/server/rendering/render-pool';
import type { Deps } from '@/server/services/base/deps';
import {
  payloadKeyOf,
  sealedFile,
  sealedPages,
  sealedSource,
  type StoredFiles,
} from '@/server/services/documents/sealed-source';

/** What shows of a file: nothing, where it is of a kind that can only be kept. */
export type Shown = {
  readonly pages: number;
  /** The title that the file states itself; empty: none. */
  readonly title: string;
  /** The beginning of what it says. */
  readonly text: string;
  /** Plain length of the pages that were made of it; null: it has them itself, or none. */
  readonly pagesBytes: number | null;
};

async function* pieces(...parts: readonly Uint8Array[]): AsyncGenerator<Uint8Array> {
  for (const part of parts) yield await Promise.resolve(part);
}

/** Seals the pages beside the file they were made of: under the same file key, with a nonce of their own. */
async function sealPages(
  deps: Deps,
  files: StoredFiles,
  fileKey: Uint8Array,
  bytes: Uint8Array,
): Promise<void> {
  const { blobKey, headerBytes } = sealedPages({ ...files, pagesBytes: bytes.length });
  const header: Uint8Array[] = [];
  for await (const piece of deps.blobs.read(files.blobKey, { offset: 0, length: headerBytes }))
    header.push(new Uint8Array(piece));
  await deps.blobs.needRoom(bytes.length);
  await deps.blobs.writeAt(blobKey, 0, pieces(...header, deps.random(PAYLOAD_NONCE)));
  const key = payloadKeyOf(deps, { blobKey, headerBytes }, fileKey);
  const payload = { key, first: 0, ends: true };
  await deps.blobs.sealAt(blobKey, headerBytes + PAYLOAD_NONCE, payload, pieces(bytes));
  await deps.blobs.finish(blobKey, fileSize(headerBytes, bytes.length));
}

async function pagesMade(
  deps: Deps,
  files: StoredFiles,
  mediaType: MediaType,
  fileKey: Uint8Array,
  asker: Asker,
): Promise<number> {
  const file = sealedFile(files);
  const source = sealedSource(deps, file, payloadKeyOf(deps, file, fileKey));
  const { bytes } = await deps.renderer.run({ kind: 'make', source, mediaType }, asker);
  await sealPages(deps, files, fileKey, bytes);
  return bytes.length;
}

/**
 * Opens a sealed file once, to see that it can be shown; of one that has no pages itself they are
 * made, unless they were before, and kept sealed beside it.
 *
 * @throws ContentError where it cannot be shown; StorageError `DISK_FULL`
 */
export async function showFile(
  deps: Deps,
  files: StoredFiles,
  mediaType: MediaType,
  fileKey: Uint8Array,
  asker: Asker,
): Promise<Shown> {
  const from = pagesFrom(mediaType);
  if (from === 'none') return { pages: 0, title: '', text: '', pagesBytes: null };
  const pagesBytes =
    from === 'itself'
      ? null
      : (files.pagesBytes ?? (await pagesMade(deps, files, mediaType, fileKey, asker)));
  const drawn = sealedPages({ ...files, pagesBytes });
  const source = sealedSource(deps, drawn, payloadKeyOf(deps, drawn, fileKey));
  const shown = await deps.renderer.run({ kind: 'inspect', source }, asker);
  return { ...shown, pagesBytes };
}
