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

type ErrorBody = { readonly error?: { readonly code: string; readonly message: string; readonly data?: Record<string, number | string>; readonly fields?: Record<string, string> } };

/** Turns a failed answer into a `CallError`. */
export async function toCallError(response: Response): Promise<CallError> {
  const body = (await response.json().catch(() => ({}))) as ErrorBody;
  return new CallError(body.error?.message ?? 'The server gave no answer that makes sense. Try again.', body.error?.code ?? 'FAILED', response.status, body.error?.data, body.error?.fields);
}

let askProof: (() => Promise<boolean>) | null = null;

/** Says what asks whoever is at the screen to prove again who they are; the answer is whether they did. */
export function onProofNeeded(ask: (() => Promise<boolean>) | null): void {
  askProof = ask;
}

/** Calls the API with JSON; where a fresh proof is needed it is asked for, and the call made again. @throws CallError, also where the server cannot be reached */
export async function call<R>(method: 'GET' | 'POST' | 'DELETE', path: string, body?: unknown, headers: Readonly<Record<string, string>> = {}): Promise<R> {
  try {
    return await callOnce<R>(method, path, body, headers);
  } catch (error) {
    if (!(error instanceof CallError && error.code === 'PROVE_AGAIN') || askProof === null || !(await askProof())) throw error;
    return callOnce<R>(method, path, body, headers);
  }
}

/** Calls the API with JSON. @throws CallError, also where the server cannot be reached */
async function callOnce<R>(method: 'GET' | 'POST' | 'DELETE', path: string, body: unknown, headers: Readonly<Record<string, string>>): Promise<R> {
  let response: Response;
  try {
    response = await fetch(path, { method, headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers }, ...(body === undefined ? {} : { body: JSON.stringify(body) }) });
  } catch {
    throw new CallError('The server cannot be reached. Check your connection and try again.', 'UNREACHABLE', 0);
  }
  if (!response.ok) throw await toCallError(response);
  return (await response.json()) as R;
}

/** The sentence to show for anything that was thrown. */
export function sentenceOf(error: unknown): string {
  return error instanceof CallError ? error.message : 'Something went wrong in this page. Reload it and try again.';
}
