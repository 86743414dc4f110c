import 'server-only';
import type { Logger } from 'pino';
import { z } from 'zod';
import { isAppError, type AppError } from '@/core/base/errors';
import type { Language } from '@/core/base/languages';
import { isDiskFull } from '@/core/base/disk-full';
import type { ContentErrorCode } from '@/core/pages/errors';
import { statusOf } from '@/server/http/status';
import { isProblem, problemText, type Reader } from '@/words/problem-text';
import { en } from '@/words/recipient-problems/en';
import { recipientProblems } from '@/words/recipient-problems/recipient-problems';

/** What every failed call answers with. */
type ErrorBody = {
  readonly error: {
    readonly code: string;
    readonly message: string;
    readonly data?: object;
    readonly fields?: Readonly<Record<string, string>>;
  };
};

const NO_STORE = { 'cache-control': 'no-store' };

export function json(
  body: unknown,
  status = 200,
  headers: Readonly<Record<string, string>> = {},
): Response {
  return Response.json(body, { status, headers: { ...NO_STORE, ...headers } });
}

/** JSON-LD as a file to save (W3C JSON-LD 1.1, section IANA). */
export function jsonFile({
  name,
  document,
}: {
  readonly name: string;
  readonly document: unknown;
}): Response {
  return bytes(
    new TextEncoder().encode(`${JSON.stringify(document, null, 2)}\n`),
    'application/ld+json',
    asDownload(name),
  );
}

/** A file or picture, never kept by any cache. */
export function bytes(
  content: Uint8Array,
  type: string,
  headers: Readonly<Record<string, string>> = {},
): Response {
  return new Response(content as Uint8Array<ArrayBuffer>, {
    headers: {
      ...NO_STORE,
      'content-type': type,
      'content-length': String(content.length),
      ...headers,
    },
  });
}

/** Bytes that go with a response beside it. The framework loads modules of its own, so they are found by a name. */
const BESIDE = Symbol.for('embargo.bytes-beside');

/** The same for whoever sends the bytes itself, as they are: in a response they are copied, and again when read. */
export function bytesBeside(
  content: Uint8Array,
  type: string,
  headers: Readonly<Record<string, string>> = {},
): Response {
  const response = new Response(null, {
    headers: {
      ...NO_STORE,
      'content-type': type,
      'content-length': String(content.length),
      ...headers,
    },
  });
  return Object.assign(response, { [BESIDE]: content });
}

/** How large a page is in points, beside its picture. */
export function pointsHeader({
  width,
  height,
}: {
  readonly width: number;
  readonly height: number;
}): Readonly<Record<string, string>> {
  return { 'x-page-points': `${width.toFixed(2)} ${height.toFixed(2)}` };
}

/** `Content-Disposition` for a download with this name (RFC 6266, RFC 8187). */
export function asDownload(name: string): Record<string, string> {
  return {
    'content-disposition':
      `attachment; filename="${name.replaceAll(/[^\x20-\x7e]|["\\]/g, '_')}"; ` +
      `filename*=UTF-8''${encodeURIComponent(name)}`,
  };
}

/** What staff are told where the server itself is at fault. */
const AT_FAULT = {
  noRoom:
    'The server has no room left to write this down, so it was not done. Tell the person who runs it.',
  harmed:
    'Part of the database is damaged, and this is in it. Everything else goes on. Tell the person who runs the server.',
  failed: 'Something went wrong on our side. Nothing was changed.',
};

function faultText(fault: keyof typeof AT_FAULT, reader: Reader): string {
  if (reader.audience === 'staff') return AT_FAULT[fault];
  return recipientProblems[reader.language].say(`other.${fault}`);
}

/** Whether a page or a text of the database is not what was written. */
function isHarmed(error: unknown): boolean {
  for (let at = error; at instanceof Error; at = at.cause)
    if (
      ('code' in at && String(at.code).startsWith('SQLITE_CORRUPT')) ||
      at.message.includes('malformed')
    )
      return true;
  return false;
}

/** What is wrong with what was sent, field by field. */
function respondInvalid({ issues }: z.ZodError, reader: Reader): Response {
  const messages = [...new Set(issues.map((issue) => issue.message))];
  const fields = issues.map((issue) => issue.path.join('.'));
  return json(
    {
      error: {
        code: 'INVALID',
        message:
          reader.audience === 'staff'
            ? `Please check: ${messages.join('; ')}.`
            : invalidText(fields, reader.language),
        fields: Object.fromEntries(issues.map((issue) => [issue.path.join('.'), issue.message])),
      },
    } satisfies ErrorBody,
    422,
  );
}

/** Recipients enter little: an email address, a code, and words. */
function invalidText(fields: readonly string[], language: Language): string {
  const { say } = recipientProblems[language];
  if (fields.includes('address')) return say('other.address');
  return fields.includes('code') ? say('other.code') : say('other.check');
}

/** What is wrong with a file or a page, in the words of whoever reads it. */
function errorText(error: AppError, reader: Reader): string {
  if (isProblem(error)) return problemText(error, reader);
  if (reader.audience === 'staff' || !isContentCode(error.code)) return error.message;
  // English says what was found in the place of what was claimed.
  return reader.language === 'en'
    ? error.message
    : recipientProblems[reader.language].say(`content.${error.code}`);
}

function isContentCode(code: string): code is ContentErrorCode {
  return code in en.content;
}

/** The answer to an error that says what it is; `null` where that is nobody's business outside. */
function respondKnown(error: AppError, reader: Reader): Response | null {
  const status = statusOf(error.code);
  if (status === null || status === 500) return null;
  const data = isProblem(error) ? error.fields : {};
  const message = errorText(error, reader);
  return json(
    { error: { code: error.code, message, data } } satisfies ErrorBody,
    status,
    'retryAfter' in data ? { 'retry-after': String(data.retryAfter) } : {},
  );
}

/** One place turns errors into answers. An unknown one becomes a bare 500: its message may hold anything. */
export function respondError(error: unknown, log: Logger, reader: Reader): Response {
  if (error instanceof z.ZodError) return respondInvalid(error, reader);
  const known = isAppError(error) ? respondKnown(error, reader) : null;
  if (known !== null) return known;
  if (isDiskFull(error))
    return json(
      { error: { code: 'DISK_FULL', message: faultText('noRoom', reader) } } satisfies ErrorBody,
      507,
    );
  if (isHarmed(error))
    return json(
      { error: { code: 'DAMAGED', message: faultText('harmed', reader) } } satisfies ErrorBody,
      500,
    );
  if (isGivenUp(error)) return new Response(null, { status: GIVEN_UP });
  log.error(
    {
      name: error instanceof Error ? error.name : typeof error,
      code: isAppError(error) ? error.code : undefined,
      stack: error instanceof Error ? stackOnly(error) : undefined,
    },
    'a request failed',
  );
  return json(
    {
      error: { code: 'FAILED', message: faultText('failed', reader) },
    } satisfies ErrorBody,
    500,
  );
}

/** Nobody hears it: the number is what proxies write down for it. */
const GIVEN_UP = 499;

/** Whoever asked went away, and what was begun for them was let go of: that is no fault. */
function isGivenUp(error: unknown): boolean {
  return error instanceof DOMException && error.name === 'AbortError';
}

/** Where it happened without what it said: a database error's message carries the values it was given. */
function stackOnly(error: Error): string {
  return (error.stack ?? '')
    .split('\n')
    .filter((line) => line.trimStart().startsWith('at '))
    .slice(0, 12)
    .join('\n');
}

/** Bytes that are sent while they are being made, as a download; `length` where it is known before. */
export function byteStream(
  pieces: AsyncGenerator<Uint8Array, void>,
  type: string,
  name: string,
  length?: number,
  headers: Readonly<Record<string, string>> = {},
): Response {
  const body = new ReadableStream<Uint8Array>({
    pull: async (controller) => {
      const { done, value } = await pieces.next();
      if (done === true) controller.close();
      else controller.enqueue(value);
    },
    cancel: async () => {
      await pieces.return(undefined);
    },
  });
  return new Response(body, {
    headers: {
      ...NO_STORE,
      'content-type': type,
      ...(length === undefined ? {} : { 'content-length': String(length) }),
      ...asDownload(name),
      ...headers,
    },
  });
}

/** Whether a copy bears whose it is. */
export function markedHeader({ marked }: { readonly marked: boolean }): Record<string, string> {
  return { 'x-marked': marked ? 'yes' : 'no' };
}

/**
 * Server-sent events (HTML Living Standard §9.2): an event of this name whenever `subscribe` says
 * so, and a beat that keeps proxies from closing.
 */
export async function eventStream(
  subscribe: (send: () => void) => Promise<() => void>,
  name: string,
): Promise<Response> {
  const encoder = new TextEncoder();
  let controller: ReadableStreamDefaultController<Uint8Array> | null = null;
  const send = (text: string): void => {
    controller?.enqueue(encoder.encode(text));
  };
  const end = await subscribe(() => {
    send(`event: ${name}\ndata: {}\n\n`);
  });
  let beat: NodeJS.Timeout | null = null;
  const body = new ReadableStream<Uint8Array>({
    start: (opened) => {
      controller = opened;
      send(`retry: 1000\nevent: ${name}\ndata: {}\n\n`);
      beat = setInterval(() => {
        send(': still here\n\n');
      }, BEAT);
    },
    cancel: () => {
      controller = null;
      if (beat !== null) clearInterval(beat);
      end();
    },
  });
  return new Response(body, {
    headers: { ...NO_STORE, 'content-type': 'text/event-stream', 'x-accel-buffering': 'no' },
  });
}

const BEAT = 15_000;
