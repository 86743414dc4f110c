/** An answer that says no, worded for the person; `code` is for programs. */
export class CallError extends Error {
  override readonly name = 'CallError';

  constructor(
    message: string,
    readonly code: string,
    readonly status: number,
    readonly data: Readonly<Record<string, number | string>> = {},
    readonly fields: Readonly<Record<string, string>> = {},
  ) {
    super(message);
  }
}

/** What this page says by itself, where no answer of the server says it. */
type OwnSentences = {
  /** Told to the server, which then answers in it (BCP 47). */
  readonly language: string;
  readonly unreachable: string;
  readonly unreadable: string;
  readonly broken: string;
};

let own: OwnSentences = {
  language: 'en',
  unreachable: 'The server cannot be reached. Check your connection and try again.',
  unreadable: 'The server’s answer could not be read. Try again.',
  broken: 'Something went wrong in this page. Reload it and try again.',
};

/** Says in which words calls fail from here on. */
export function speakTo(sentences: OwnSentences): void {
  own = sentences;
}

/** The language of the page, for the headers of a call. */
export function inLanguage(): Readonly<Record<string, string>> {
  return { 'accept-language': own.language };
}

/** The server gave no answer at all. */
export function unreachable(): CallError {
  return new CallError(own.unreachable, 'UNREACHABLE', 0);
}

type ErrorBody = {
  readonly error?: {
    readonly code: string;
    readonly message: string;
    readonly data?: Record<string, number | string>;
    readonly fields?: Record<string, string>;
  };
};

/** Turns a failed answer into a `CallError`. */
export async function toCallError(response: Response): Promise<CallError> {
  const body = (await response.json().catch(() => ({}))) as ErrorBody;
  return new CallError(
    body.error?.message ?? own.unreadable,
    body.error?.code ?? 'FAILED',
    response.status,
    body.error?.data,
    body.error?.fields,
  );
}

let askProof: (() => Promise<boolean>) | null = null;

/** Says what asks the person at the screen to prove again who they are; the answer is whether they did. */
export function onProofNeeded(ask: (() => Promise<boolean>) | null): void {
  askProof = ask;
}

let askReason: (() => Promise<string | null>) | null = null;

/** Says what asks the person at the screen for the reason of what they do; `null`: they give none. */
export function onReasonNeeded(ask: (() => Promise<string | null>) | null): void {
  askReason = ask;
}

/** Does something; where a fresh proof is needed for it, that is asked for, and it is done again. */
async function proving<R>(work: () => Promise<R>): Promise<R> {
  try {
    return await work();
  } catch (error) {
    if (
      !(error instanceof CallError && error.code === 'PROVE_AGAIN') ||
      askProof === null ||
      !(await askProof())
    )
      throw error;
    return work();
  }
}

/**
 * Does something with a body; where the organisation asks for a reason, that is asked for, and it
 * is done again with it.
 */
async function reasoning<R>(body: unknown, work: (body: unknown) => Promise<R>): Promise<R> {
  try {
    return await work(body);
  } catch (error) {
    const isAsked = error instanceof CallError && error.code === 'REASON_NEEDED';
    const reason = isAsked && askReason !== null ? await askReason() : null;
    if (reason === null) throw error;
    return work({ ...(body as Readonly<Record<string, unknown>>), reason });
  }
}

/**
 * Calls the API with JSON; where a fresh proof or a reason is needed it is asked for, and the call
 * made again. @throws CallError, also where the server cannot be reached
 */
export async function call<R>(
  method: 'GET' | 'POST' | 'DELETE',
  path: string,
  body?: unknown,
  headers: Readonly<Record<string, string>> = {},
): Promise<R> {
  return reasoning(body, (asked) =>
    proving(async () => (await (await answered(method, path, asked, headers)).json()) as R),
  );
}

/** Calls the API and hears an answer that comes in lines of JSON, each as it arrives. @throws CallError */
export async function callLines(
  path: string,
  body: unknown,
  onLine: (line: unknown) => void,
): Promise<void> {
  const response = await proving(() => answered('POST', path, body, {}));
  const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (;;) {
    const { done = true, value = '' } = (await reader?.read()) ?? {};
    const lines = `${rest}${value}`.split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) onLine(JSON.parse(line));
    if (done) return;
  }
}

/**
 * Keys of changes whose answer has not come: anyone who presses again, or twice, after an answer was
 * lost asks for the same act and not for a second one.
 */
const unanswered = new Map<string, string>();

/** One call with JSON, answered well. @throws CallError, also where the server cannot be reached */
async function answered(
  method: 'GET' | 'POST' | 'DELETE',
  path: string,
  body: unknown,
  headers: Readonly<Record<string, string>>,
): Promise<Response> {
  const text = body === undefined ? undefined : JSON.stringify(body);
  const act = `${method} ${path} ${text ?? ''}`;
  const key = unanswered.get(act) ?? crypto.randomUUID();
  if (method !== 'GET') unanswered.set(act, key);
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: {
        ...inLanguage(),
        ...(text === undefined ? {} : { 'content-type': 'application/json' }),
        ...(method === 'GET' ? {} : { 'idempotency-key': key }),
        ...headers,
      },
      ...(text === undefined ? {} : { body: text }),
    });
  } catch {
    throw unreachable();
  }
  unanswered.delete(act);
  if (!response.ok) throw await toCallError(response);
  return response;
}

/** The sentence to show for anything that was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof CallError ? error.message : own.broken;
}
