import type { HalfUpload, PartResult } from '@/contracts/document';
import type { DocumentId, FolderId, MarkingId, UploadId } from '@/core/base/ids';
import { api } from '@/ui/http/api';
import { CallError, call, toCallError } from '@/ui/http/call';

/** What a new document is called, where it sits and what it is marked. */
export type NewDocument = {
  readonly title: string;
  readonly reference: string;
  readonly folderId: FolderId | null;
  readonly markingId: MarkingId | null;
  /** Whether the recovery key is to open it. */
  readonly recoverable: boolean;
  /** Whether it becomes a document of its own although the same file is one already. */
  readonly again?: boolean;
};
/** An upload that goes on where it was left. */
type Resumed = Pick<HalfUpload, 'id' | 'partBytes' | 'receivedBytes'>;
export type UploadProgress = { readonly sent: number; readonly total: number };

const TRIES = 6;
const FIRST_PAUSE = 800;

const pause = (span: number): Promise<void> =>
  new Promise((resolve) => {
    setTimeout(resolve, span);
  });

/** Sends one part; the answer is how much the server has. A cut connection throws `UNREACHABLE`. */
async function sendPart(
  id: string,
  offset: number,
  part: Blob,
  signal: AbortSignal,
): Promise<number> {
  let response: Response;
  try {
    response = await fetch(`/api/v1/uploads/${id}?offset=${String(offset)}`, {
      method: 'PUT',
      body: part,
      headers: { 'content-type': 'application/octet-stream' },
      signal,
    });
  } catch (cause) {
    if (signal.aborted) throw cause;
    throw new CallError('The connection was cut.', 'UNREACHABLE', 0);
  }
  if (response.ok) return ((await response.json()) as PartResult).receivedBytes;
  const error = await toCallError(response);
  const received = error.data['receivedBytes'];
  // The server is further along, or back: go on from where it is.
  if (error.code === 'CONFLICT' && typeof received === 'number') return received;
  throw error;
}

/** Tries a part again after a cut connection, with longer and longer pauses. */
async function sendPatiently(
  id: string,
  offset: number,
  part: Blob,
  signal: AbortSignal,
): Promise<number> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await sendPart(id, offset, part, signal);
    } catch (error) {
      const mayPass =
        error instanceof CallError && (error.code === 'UNREACHABLE' || error.status >= 502);
      if (!mayPass || attempt === TRIES) throw error;
      await pause(FIRST_PAUSE * 2 ** (attempt - 1));
    }
  }
}

/**
 * Uploads a file part by part and has it protected. Cancelling removes what was sent.
 *
 * @throws CallError with a sentence for the person, DOMException `AbortError` after cancelling
 */
export async function uploadFile(
  file: File,
  about: NewDocument,
  onProgress: (progress: UploadProgress) => void,
  signal: AbortSignal,
  half: Resumed | null = null,
): Promise<DocumentId> {
  return (
    await send<{ readonly id: DocumentId }>(
      file,
      { recoverable: about.recoverable },
      'finish',
      about,
      onProgress,
      signal,
      half,
    )
  ).id;
}

/** Uploads a file as the next version of a document; else as `uploadFile`. */
export async function uploadVersion(
  file: File,
  revises: DocumentId,
  onProgress: (progress: UploadProgress) => void,
  signal: AbortSignal,
): Promise<number> {
  return (
    await send<{ readonly number: number }>(file, { revises }, 'revise', {}, onProgress, signal)
  ).number;
}

async function send<R>(
  file: File,
  begin: Begun,
  end: 'finish' | 'revise',
  about: object,
  onProgress: (progress: UploadProgress) => void,
  signal: AbortSignal,
  half: Resumed | null = null,
): Promise<R> {
  const id = await uploadParts(file, begin, onProgress, signal, half);
  return endUpload<R>(id, end, about);
}

/** What came of an upload; where it cannot become anything, it is removed. */
async function endUpload<R>(id: UploadId, end: 'finish' | 'revise', about: object): Promise<R> {
  try {
    return await call<R>('POST', `/api/v1/uploads/${id}/${end}`, about);
  } catch (error) {
    await dropUnlessCut(id, error);
    throw error;
  }
}

/** Whether a file was not taken in because it is a document already. */
export function isSameFile(error: unknown): boolean {
  return error instanceof CallError && 'same' in error.data;
}

/** What a connection cut off, or is a document already, can be gone on with; what was cancelled or refused cannot. */
async function dropUnlessCut(id: UploadId, error: unknown): Promise<void> {
  const isCut = error instanceof CallError && error.code === 'UNREACHABLE';
  if (!isCut && !isSameFile(error))
    await api('DELETE /api/v1/uploads/:id', { id }).catch(() => undefined);
}

/** Makes an upload that has arrived whole a document. @throws CallError */
export async function finishUpload(id: UploadId, about: NewDocument): Promise<DocumentId> {
  const { id: document } = await call<{ readonly id: DocumentId }>(
    'POST',
    `/api/v1/uploads/${id}/finish`,
    about,
  );
  return document;
}

type Begun = { readonly revises?: DocumentId; readonly recoverable?: boolean };

/**
 * Uploads a file part by part, until all of it has arrived. Cancelling removes what was sent.
 *
 * @throws CallError, DOMException `AbortError` after cancelling
 */
export async function uploadParts(
  file: File,
  begin: Begun,
  onProgress: (progress: UploadProgress) => void,
  signal: AbortSignal,
  half: Resumed | null = null,
): Promise<UploadId> {
  const { id, partBytes } =
    half ??
    (await api('POST /api/v1/uploads', {
      fileName: file.name,
      bytes: file.size,
      ...begin,
    }));
  try {
    for (let sent = half?.receivedBytes ?? 0; sent < file.size;) {
      signal.throwIfAborted();
      sent = await sendPatiently(id, sent, file.slice(sent, sent + partBytes), signal);
      onProgress({ sent, total: file.size });
    }
    return id;
  } catch (error) {
    await dropUnlessCut(id, error);
    throw error;
  }
}
