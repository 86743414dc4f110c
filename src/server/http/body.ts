import 'server-only';

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
