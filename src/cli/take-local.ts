import { randomBytes } from 'node:crypto';
import { closeSync, openSync, readSync } from 'node:fs';
import { mkdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { base64 } from '@scure/base';
import { PAYLOAD_NONCE, payloadKey, sealedSize } from '@/core/age/chunks';
import { concatBytes } from '@/core/base/bytes';
import { AgeError } from '@/core/age/errors';
import { newBoxKeyPair, unboxKey } from '@/core/licence/key-box';
import { lookAtPlain } from '@/core/own-machine/look';
import { ContentError } from '@/core/pages/errors';
import {
  beginLocalInput,
  finishLocalInput,
  type FileFound,
  type LocalBegun,
  type LocalCover,
} from '@/contracts/local-document';
import { checked } from '@/cli/command';
import { withFile } from '@/cli/picked-file';
import { makeWhole } from '@/cli/write-whole';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import {
  beginLocal,
  coverForLocal,
  protectLocal,
} from '@/server/services/documents/local-document';
import { cancelUpload } from '@/server/services/documents/protect-document';
import { writeStream } from '@/server/storage/write-stream';
import type { SealedFiles } from '@/server/storage/sealed-files';

/** What a file is. @throws ContentError where it is no PDF that can be drawn, or is protected already */
async function look(file: string, size: number): Promise<FileFound> {
  const opened = openSync(file, 'r');
  const readAt = (offset: number, length: number): Uint8Array => {
    const bytes = new Uint8Array(length);
    return bytes.subarray(0, readSync(opened, bytes, 0, length, offset));
  };
  try {
    const found = await lookAtPlain({ size, readAt }, path.basename(file), loadInstalledPdfium);
    if (found.pages === 0) throw new ContentError('NOT_A_PDF');
    return found;
  } finally {
    closeSync(opened);
  }
}

/** The content key and the header of a new document, and the upload they are of. */
async function begin(
  deps: Deps,
  actor: StaffActor,
  given: { readonly fileName: string; readonly bytes: number; readonly recoverable: boolean },
): Promise<{ readonly begun: LocalBegun; readonly fileKey: Uint8Array }> {
  const { boxKey, privateKey } = await newBoxKeyPair();
  const begun = await beginLocal(
    deps,
    actor,
    checked(beginLocalInput.safeParse({ ...given, boxKey })),
  );
  return { begun, fileKey: await unboxKey(begun.box, privateKey, begun.version) };
}

/**
 * Writes the protected file of a plain one in one pass.
 *
 * @throws OutputError; ContentError `FILE_DAMAGED` where the plain one was changed meanwhile
 */
async function writeProtected(
  files: SealedFiles,
  plain: { readonly path: string; readonly size: number },
  target: string,
  { fileKey, begun, cover }: { fileKey: Uint8Array; begun: LocalBegun; cover: LocalCover },
): Promise<void> {
  const nonce = new Uint8Array(randomBytes(PAYLOAD_NONCE));
  const payload = { key: payloadKey(fileKey, nonce), first: 0, ends: true };
  const head = concatBytes(base64.decode(cover.head), base64.decode(begun.header), nonce);
  await withFile(plain.path, (file) =>
    makeWhole(target, async (to) => {
      await writeStream(to, 0, Readable.from([head]));
      // As long as it was when the document was begun: its cover says so.
      const stretch = { file, offset: 0, length: plain.size };
      await files.seal(payload, stretch, { file: to, offset: head.length });
      const end = head.length + sealedSize(plain.size);
      await writeStream(to, end, Readable.from([base64.decode(cover.tail)]));
    }),
  ).catch((error: unknown) => {
    throw error instanceof AgeError ? new ContentError('FILE_DAMAGED') : error;
  });
}

/**
 * Encrypts a PDF beside where it lies: its protected file is written into `folder`, and nothing of its
 * content into the store.
 *
 * @throws ContentError; OutputError; ServiceError
 */
export async function takeLocal(
  deps: Deps,
  actor: StaffActor,
  files: SealedFiles,
  file: string,
  named: {
    readonly title: string;
    readonly reference: string;
    readonly recoverable: boolean;
    readonly folder: string;
  },
) {
  const { size } = await stat(file);
  const found = await look(file, size);
  const fileName = path.basename(file);
  const { begun, fileKey } = await begin(deps, actor, {
    fileName,
    bytes: size,
    recoverable: named.recoverable,
  });
  try {
    const { title, reference } = named;
    const cover = await coverForLocal(deps, actor, { id: begun.id, reference });
    await mkdir(named.folder, { recursive: true });
    const target = path.join(named.folder, cover.name);
    await writeProtected(files, { path: file, size }, target, { fileKey, begun, cover });
    const finish = checked(
      finishLocalInput.safeParse({ id: begun.id, title, reference, ...found }),
    );
    return { id: (await protectLocal(deps, actor, finish)).id, reference, target };
  } catch (error) {
    await cancelUpload(deps, actor, { id: begun.id }).catch(() => undefined);
    throw error;
  } finally {
    fileKey.fill(0);
  }
}
