// Encrypts a file in the browser: what leaves this worker is a protected file on this machine's disk.
import { base64 } from '@scure/base';
import { PAYLOAD_NONCE } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';
import { isAppError } from '@/core/base/errors';
import { unboxKey } from '@/core/licence/key-box';
import { lookAtPlain } from '@/core/own-machine/look';
import { writeProtected, type Plain } from '@/core/own-machine/write-protected';
import { ContentError } from '@/core/pages/errors';
import { loadPdfium } from '@/core/pages/pdfium';
import type { SealAsked, SealReply } from '@/contracts/local-document';

type Scope = {
  onmessage: ((event: { readonly data: SealAsked }) => void) | null;
  readonly postMessage: (reply: SealReply) => void;
};
declare class FileReaderSync {
  readAsArrayBuffer(blob: Blob): ArrayBuffer;
}
type SyncHandle = {
  readonly write: (piece: Uint8Array, options: { readonly at: number }) => number;
  readonly truncate: (size: number) => void;
  readonly flush: () => void;
  readonly close: () => void;
};

const scope = self as unknown as Scope;
const files = new FileReaderSync();
/** The folder of this origin that files are encrypted into; what lies there is from before. */
const FOLDER = 'encrypted here';

function plainOf(file: File): Plain {
  return {
    size: file.size,
    readAt: (offset, length) => {
      const bytes = new Uint8Array(files.readAsArrayBuffer(file.slice(offset, offset + length)));
      // It was changed or taken away while it was read.
      if (bytes.length !== length) throw new ContentError('FILE_DAMAGED');
      return bytes;
    },
  };
}

async function newFile(name: string): Promise<FileSystemFileHandle> {
  const root = await navigator.storage.getDirectory();
  await root.removeEntry(FOLDER, { recursive: true }).catch(() => undefined);
  const folder = await root.getDirectoryHandle(FOLDER, { create: true });
  return folder.getFileHandle(name, { create: true });
}

async function seal(asked: SealAsked & { readonly kind: 'seal' }): Promise<File> {
  const { file, begun, cover, privateKey } = asked;
  const [cipher, fileKey, target] = await Promise.all([
    sodiumChunkCipher(),
    unboxKey(begun.box, privateKey, begun.version),
    newFile(cover.name),
  ]);
  const disk = await (
    target as unknown as { readonly createSyncAccessHandle: () => Promise<SyncHandle> }
  ).createSyncAccessHandle();
  try {
    let at = 0;
    disk.truncate(0);
    writeProtected(
      plainOf(file),
      {
        header: base64.decode(begun.header),
        fileKey,
        nonce: crypto.getRandomValues(new Uint8Array(PAYLOAD_NONCE)),
        envelope: { head: base64.decode(cover.head), tail: base64.decode(cover.tail) },
        cipher,
      },
      (piece) => {
        const written = disk.write(piece, { at });
        if (written !== piece.length) throw new AgeError('DAMAGED', 'no room');
        at += written;
      },
      (bytes) => {
        scope.postMessage({ kind: 'sealed', bytes });
      },
    );
    disk.flush();
  } finally {
    fileKey.fill(0);
    disk.close();
  }
  return target.getFile();
}

async function answer(asked: SealAsked): Promise<SealReply> {
  if (asked.kind === 'look') {
    const { file, wasm } = asked;
    const pdfium = () => WebAssembly.compile(wasm).then(loadPdfium);
    return { kind: 'found', found: await lookAtPlain(plainOf(file), file.name, pdfium) };
  }
  return { kind: 'done', file: await seal(asked) };
}

function codeOf(error: unknown): string {
  if (isAppError(error)) return error.code;
  return error instanceof DOMException && error.name === 'QuotaExceededError'
    ? 'NO_ROOM'
    : 'FAILED';
}

scope.onmessage = ({ data }) => {
  answer(data).then(
    (reply) => {
      scope.postMessage(reply);
    },
    (error: unknown) => {
      scope.postMessage({ kind: 'failed', code: codeOf(error) });
    },
  );
};
