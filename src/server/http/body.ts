import 'server-only';
import { ServiceError } from '@/server/services/base/errors';

/** The bytes of a request as they arrive; a connection that is cut throws. */
export async function* bodyOf(request: Request): AsyncGenerator<Uint8Array> {
  const reader = request.body?.getReader();
  if (reader === undefined) return;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    yield value;
  }
}

const tooLarge = (): ServiceError => new ServiceError('request-too-large');

/**
 * The body of a request that says it is JSON, as text; empty for any other. What is larger than
 * `most` bytes is not read to its end.
 *
 * @throws ServiceError `TOO_LARGE`
 */
export async function jsonText(request: Request, most: number): Promise<string> {
  if (
    request.method === 'GET' ||
    request.headers.get('content-type')?.startsWith('application/json') !== true
  )
    return '';
  if (Number(request.headers.get('content-length') ?? 0) > most) throw tooLarge();
  const pieces: Uint8Array[] = [];
  let size = 0;
  for await (const piece of bodyOf(request)) {
    size += piece.length;
    if (size > most) throw tooLarge();
    pieces.push(piece);
  }
  return Buffer.concat(pieces).toString('utf8');
}

/** Deeper than anything this product takes: the parser of JSON calls itself once a level. */
const DEEPEST = 32;

/** Whether brackets that stand in no text nest deeper than is taken, found in one pass. */
function isTooDeep(text: string): boolean {
  let depth = 0;
  for (let at = 0; at < text.length; at++) {
    const letter = text[at];
    if (letter === '"') {
      for (at++; at < text.length && text[at] !== '"'; at++) if (text[at] === '\\') at++;
    } else if (letter === '{' || letter === '[') {
      depth++;
      if (depth > DEEPEST) return true;
    } else if (letter === '}' || letter === ']') {
      depth--;
    }
  }
  return false;
}

/** @throws ServiceError `INVALID` where it is no JSON, or nests without end */
export function parseJson(text: string): unknown {
  if (text === '') return {};
  try {
    if (!isTooDeep(text)) return JSON.parse(text) as unknown;
  } catch {
    // Said below.
  }
  throw new ServiceError('request-unreadable');
}
