import {
  finishLocalInput,
  type FileFound,
  type SealAsked,
  type SealReply,
} from '@/contracts/local-document';
import type { DocumentId, FolderId, MarkingId } from '@/core/base/ids';
import { newBoxKeyPair } from '@/core/licence/key-box';
import { pdfiumBytes } from '@/ui/own-machine/own-worker';
import { api } from '@/ui/http/api';

/** What could not be encrypted on this machine, by its code. */
export class SealFailure extends Error {
  override readonly name = 'SealFailure';

  constructor(readonly code: string) {
    super(code);
  }
}

/** Asks the worker one thing; aborted, it stops at once and nothing is left of what it made. */
function askWorker<K extends SealReply['kind']>(
  asked: SealAsked,
  wanted: K,
  {
    signal,
    onSealed,
  }: { readonly signal: AbortSignal; readonly onSealed?: (bytes: number) => void },
): Promise<Extract<SealReply, { readonly kind: K }>> {
  return new Promise((resolve, reject) => {
    const worker = new Worker('/sender/seal.js', { type: 'module' });
    const end = (): void => {
      worker.terminate();
      signal.removeEventListener('abort', stop);
    };
    const fail = (code: string): void => {
      end();
      reject(new SealFailure(code));
    };
    const stop = (): void => {
      fail('STOPPED');
    };
    signal.addEventListener('abort', stop);
    worker.onerror = () => {
      fail('FAILED');
    };
    worker.onmessage = ({ data }: MessageEvent<SealReply>) => {
      if (data.kind === 'sealed') onSealed?.(data.bytes);
      else if (data.kind === 'failed') fail(data.code);
      else if (data.kind === wanted) {
        end();
        resolve(data as Extract<SealReply, { readonly kind: K }>);
      }
    };
    worker.postMessage(asked);
  });
}

/** What a file is. @throws SealFailure */
export async function lookHere(file: File, signal: AbortSignal): Promise<FileFound> {
  const wasm = await pdfiumBytes();
  return (await askWorker({ kind: 'look', file, wasm }, 'found', { signal })).found;
}

export type Named = {
  readonly title: string;
  readonly reference: string;
  readonly folderId: FolderId | null;
  readonly markingId: MarkingId | null;
};
export type SealedHere = { readonly id: DocumentId; readonly file: File };

/**
 * Encrypts a file on this machine and makes it a document: the service makes its key and learns its
 * name, size, kind and number of pages; its content stays here.
 *
 * @throws SealFailure, CallError
 */
export async function sealHere(
  file: File,
  found: FileFound,
  named: Named,
  watched: { readonly signal: AbortSignal; readonly onSealed: (bytes: number) => void },
): Promise<SealedHere> {
  const { boxKey, privateKey } = await newBoxKeyPair();
  const begun = await api('POST /api/v1/local-documents', {
    fileName: file.name,
    bytes: file.size,
    boxKey,
  });
  try {
    const cover = await api('POST /api/v1/local-documents/:id/cover', {
      id: begun.id,
      reference: named.reference,
    });
    const asked = { kind: 'seal', file, begun, cover, privateKey } as const;
    const done = await askWorker(asked, 'done', watched);
    const finish = finishLocalInput.parse({ ...named, ...found, id: begun.id });
    const { id } = await api('POST /api/v1/local-documents/:id/finish', finish);
    return { id, file: done.file };
  } catch (error) {
    void api('DELETE /api/v1/uploads/:id', { id: begun.id }).catch(() => undefined);
    throw error;
  }
}
