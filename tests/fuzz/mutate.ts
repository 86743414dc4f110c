/** A repeatable source of numbers: the same seed, the same inputs (mulberry32). */
export function numbersFrom(seed: number): (below: number) => number {
  let state = seed >>> 0;
  return (below) => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) % below;
  };
}

type Numbers = ReturnType<typeof numbersFrom>;

/** One small harm: bytes altered, cut out, put in, doubled, or replaced by what parsers trip over. */
function harm(bytes: Uint8Array, next: Numbers, words: readonly Uint8Array[]): Uint8Array {
  const at = next(bytes.length + 1);
  const span = next(Math.min(64, bytes.length - at) + 1);
  const join = (...parts: Uint8Array[]): Uint8Array => Buffer.concat(parts);
  switch (next(6)) {
    case 0: {
      const copy = bytes.slice();
      if (copy.length > 0) copy[at % copy.length] = next(256);
      return copy;
    }
    case 1:
      return join(bytes.subarray(0, at), bytes.subarray(at + span));
    case 2:
      return join(bytes.subarray(0, at), bytes.subarray(at, at + span), bytes.subarray(at));
    case 3:
      return join(bytes.subarray(0, at), words[next(words.length)] ?? bytes, bytes.subarray(at));
    case 4:
      return join(
        bytes.subarray(0, at),
        words[next(words.length)] ?? bytes,
        bytes.subarray(at + span),
      );
    default:
      return bytes.subarray(0, at);
  }
}

/** A seed harmed a few times over. */
export function mutate(seed: Uint8Array, next: Numbers, words: readonly Uint8Array[]): Uint8Array {
  let bytes = seed;
  for (let times = 1 + next(4); times > 0; times--) bytes = harm(bytes, next, words);
  return bytes;
}
