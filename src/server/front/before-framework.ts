import type { IncomingMessage, ServerResponse } from 'node:http';

// Page pictures are asked for far more often than anything else, and the framework takes longer to
// hand such a request on and its answer back than it takes to decide, draw and mark. The handler is
// the same that the framework calls; only the way to it is shorter.

type Answer = (
  request: Request,
  context: { readonly params: Promise<Record<string, string>> },
) => Promise<Response>;

const kept = globalThis as typeof globalThis & { embargoPagePicture?: Answer };
/** What goes with a response beside it. */
const BESIDE = Symbol.for('embargo.bytes-beside');
const PAGE_PICTURE =
  /^\/api\/v1\/reader\/licences\/(?<licence>[0-9A-Za-z_-]+)\/pages\/(?<page>[0-9]+)(?:\?|$)/;

/** Says what answers page pictures from now on. The framework loads modules of its own, so it is kept beside them. */
export function answerPagePictures(answer: Answer): void {
  kept.embargoPagePicture = answer;
}

function headersOf(request: IncomingMessage): Headers {
  const headers = new Headers();
  for (const [name, value] of Object.entries(request.headers))
    if (value !== undefined) headers.set(name, String(value));
  return headers;
}

/** Aborts once whoever asked is gone before all was sent. */
function signalOf(response: ServerResponse): AbortSignal {
  const gone = new AbortController();
  response.once('close', () => {
    if (!response.writableFinished) gone.abort();
  });
  return gone.signal;
}

/**
 * Answers a request for a page picture.
 *
 * @returns null where it asks for something else, which the framework answers
 */
export function beforeFramework(
  request: IncomingMessage,
  response: ServerResponse,
  publicUrl: string,
): Promise<void> | null {
  const answer = kept.embargoPagePicture;
  const params = PAGE_PICTURE.exec(request.url ?? '')?.groups;
  if (answer === undefined || params === undefined || request.method !== 'GET') return null;
  const asked = new Request(new URL(request.url ?? '', publicUrl), {
    headers: headersOf(request),
    signal: signalOf(response),
  });
  return answer(asked, { params: Promise.resolve({ ...params }) }).then(async (answered) => {
    const beside = (answered as Response & { readonly [BESIDE]?: Uint8Array })[BESIDE];
    const body = beside ?? Buffer.from(await answered.arrayBuffer());
    response.writeHead(answered.status, Object.fromEntries(answered.headers)).end(body);
  });
}
