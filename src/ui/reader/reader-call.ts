import { call, inLanguage, toCallError, unreachable } from '@/ui/http/call';
import { RefusedError, type ReadingRefusal } from '@/ui/pages/refused';
import { proofHeader } from '@/ui/reader/device-key';

/** A JSON call signed with this browser's key. @throws CallError */
export async function readerCall<R>(
  method: 'GET' | 'POST',
  path: string,
  body?: unknown,
): Promise<R> {
  return call<R>(
    method,
    path,
    body,
    await proofHeader(method, path, body === undefined ? '' : JSON.stringify(body)),
  );
}

/** Fetches a page, rendition or event stream, signed. @throws RefusedError, CallError */
export async function readerFetch(
  method: 'GET' | 'POST',
  path: string,
  body: unknown,
  signal: AbortSignal | null,
  /** Sent to the end even where the page is left meanwhile. */ keepalive = false,
): Promise<Response> {
  const text = body === undefined ? null : JSON.stringify(body);
  const proof = { ...inLanguage(), ...(await proofHeader(method, path, text ?? '')) };
  const headers = text === null ? proof : { ...proof, 'content-type': 'application/json' };
  return answered(path, { method, signal, keepalive, headers, body: text });
}

/** Sends a file as it is, signed. @throws RefusedError, CallError */
export async function readerSend(path: string, file: File): Promise<Response> {
  const headers = {
    ...inLanguage(),
    ...(await proofHeader('POST', path, '')),
    'content-type': 'application/octet-stream',
  };
  return answered(path, { method: 'POST', headers, body: file });
}

async function answered(path: string, request: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, request);
  } catch (cause) {
    if (request.signal?.aborted === true) throw cause;
    throw unreachable();
  }
  if (response.ok) return response;
  if (response.status === 403) await throwRefusal(response);
  throw await toCallError(response);
}

/** A refusal is told by the reader; any other 403 is not. @throws RefusedError */
async function throwRefusal(response: Response): Promise<void> {
  const refusal = (await response.clone().json()) as {
    readonly outcome?: string;
    readonly reason?: ReadingRefusal;
    readonly at?: number | null;
  };
  if (refusal.outcome === 'refused' && refusal.reason !== undefined)
    throw new RefusedError(refusal.reason, refusal.at ?? null);
}
